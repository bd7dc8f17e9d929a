-- What was found of each screen the last time that it was looked at from narrow windows to wide ones.
CREATE TABLE IF NOT EXISTS sweeps (
  project_id CHAR(12) CHARACTER SET ascii NOT NULL,
  screen VARCHAR(200) CHARACTER SET ascii NOT NULL,
  seq INT UNSIGNED NOT NULL,
  faults LONGTEXT CHARACTER SET utf8mb4 NOT NULL,
  swept_at DATETIME(3) NOT NULL,
  PRIMARY KEY (project_id, screen),
  FOREIGN KEY (project_id) REFERENCES projects (id) ON DELETE CASCADE
) ENGINE=InnoDB;
