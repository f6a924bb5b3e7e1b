-- What is written together has many hands: whose each is, by the number that a page gives its own.
CREATE TABLE room_document_hands (
  session_id CHAR(12) NOT NULL,
  place VARCHAR(40) NOT NULL,
  name VARCHAR(40) NOT NULL,
  client INT UNSIGNED NOT NULL,
  member_id CHAR(12) NULL,
  PRIMARY KEY (session_id, place, name, client),
  KEY (member_id)
);

-- Letters that somebody put elsewhere, by a break or a heading, and whose they are.
CREATE TABLE room_document_moved (
  session_id CHAR(12) NOT NULL,
  place VARCHAR(40) NOT NULL,
  name VARCHAR(40) NOT NULL,
  client INT UNSIGNED NOT NULL,
  clock INT UNSIGNED NOT NULL,
  length INT UNSIGNED NOT NULL,
  member_id CHAR(12) NULL,
  PRIMARY KEY (session_id, place, name, client, clock),
  KEY (member_id)
);

-- How a document was at a moment: which of all that was ever written stood in it.
CREATE TABLE room_document_moments (
  session_id CHAR(12) NOT NULL,
  place VARCHAR(40) NOT NULL,
  name VARCHAR(40) NOT NULL,
  at BIGINT NOT NULL,
  body MEDIUMBLOB NOT NULL,
  PRIMARY KEY (session_id, place, name, at)
);
