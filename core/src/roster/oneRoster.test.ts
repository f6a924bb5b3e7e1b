import { oneRosterOf, rosterClasses, rosterRows, type OneRosterSet } from './oneRoster';

const users = [
  'sourcedId,status,dateLastModified,enabledUser,username,givenName,familyName,email,preferredGivenName',
  'u1,,,true,ana,Ana,Lanyon,ANA@saltmarsh.example,',
  'u2,,,true,ben,Benedict,Garrow,ben@saltmarsh.example,Ben',
  'u3,,,true,maren,Maren,Oduya,maren@saltmarsh.example,',
  'u4,,,true,cleo,Cleo,Penhale,,',
].join('\n');
const classes = [
  'sourcedId,status,dateLastModified,title,grades,courseSourcedId,classCode,classType',
  'c1,,,Coastal Navigation,,k1,NAV-210,scheduled',
  'c2,,,Weather at Sea,,k2,MET-140,scheduled',
  'c3,tobedeleted,,Old,,k3,OLD-1,scheduled',
].join('\n');
const enrollments = [
  'sourcedId,status,dateLastModified,classSourcedId,schoolSourcedId,userSourcedId,role,primary,beginDate,endDate',
  'e1,,,c1,s,u1,student,false,,',
  'e2,,,c1,s,u2,student,false,,',
  'e3,,,c1,s,u3,teacher,true,,',
  'e4,tobedeleted,,c1,s,u4,student,false,,',
  'e5,,,c2,s,u4,student,false,,2026-01-31',
  'e6,,,c2,s,u9,student,false,,2026-12-31',
].join('\n');
const today = '2026-10-06';

test('a OneRoster set gives its classes and the list of one, whatever the files are called', () => {
  const set = oneRosterOf([enrollments, users, classes]) as OneRosterSet;
  expect(rosterClasses(set, today)).toEqual([
    { id: 'c1', title: 'NAV-210 Coastal Navigation', students: 2 },
    { id: 'c2', title: 'MET-140 Weather at Sea', students: 1 },
  ]);
  expect(rosterRows(set, 'c1', today)).toMatchObject([
    { line: 2, name: 'Ana Lanyon', email: 'ana@saltmarsh.example' },
    { line: 3, name: 'Ben Garrow', email: 'ben@saltmarsh.example' },
  ]);
  expect(rosterRows(set, 'c2', today)).toMatchObject([{ name: 'u9', email: '' }]);
});

test('what is missing from a set is said, and another file is no set', () => {
  expect(oneRosterOf([users, classes])).toEqual({ missing: ['enrollments'] });
  expect(oneRosterOf(['Name,E-mail\nAna,ana@saltmarsh.example'])).toBeNull();
});
