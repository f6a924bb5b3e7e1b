-- Wrong PINs, by the number that was dialled and the caller's (empty where it is withheld): they are limited by both.
CREATE TABLE wrong_pins (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  line VARCHAR(40) NOT NULL,
  caller VARCHAR(40) NOT NULL,
  at BIGINT NOT NULL,
  KEY by_line (line, at)
);
