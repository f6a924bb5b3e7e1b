import { Container, Stack } from '@mantine/core';
import type { ReactNode } from 'react';
import { Bar } from '../app/Bar';
import frame from '../app/frame.module.css';
import { Person } from '../app/PlanningFrame';

/** The frame of the pages that belong to no course, but to the college. */
export const CollegeFrame = ({ children }: { children: ReactNode }) => (
  <>
    <Bar home="/courses">
      <span className={frame.grow} />
      <Person />
    </Bar>
    <Container size={1240} py="lg" component="main" id="content">
      <Stack>{children}</Stack>
    </Container>
  </>
);
