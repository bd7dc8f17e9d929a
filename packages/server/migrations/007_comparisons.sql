-- How near what ran was to its reference: the last of each state of the project, for each screen, width and reference.
CREATE TABLE IF NOT EXISTS comparisons (
  project_id CHAR(12) CHARACTER SET ascii NOT NULL,
  screen VARCHAR(200) CHARACTER SET ascii NOT NULL,
  drawing VARCHAR(200) CHARACTER SET ascii NOT NULL,
  width INT UNSIGNED NOT NULL,
  reference VARCHAR(40) CHARACTER SET ascii NOT NULL,
  seq INT UNSIGNED NOT NULL,
  iteration INT UNSIGNED NOT NULL,
  percent DOUBLE NOT NULL,
  causes INT UNSIGNED NOT NULL,
  compared_at DATETIME(3) NOT NULL,
  PRIMARY KEY (project_id, drawing, width, reference, seq),
  FOREIGN KEY (project_id) REFERENCES projects (id) ON DELETE CASCADE
) ENGINE=InnoDB;
