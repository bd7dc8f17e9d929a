-- Where a project's app is published: one lasting address, and what is frozen there.
CREATE TABLE IF NOT EXISTS publications (
  project_id CHAR(12) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  host VARCHAR(45) CHARACTER SET ascii NOT NULL,
  port INT UNSIGNED NOT NULL,
  pass VARCHAR(200) CHARACTER SET ascii NULL,
  is_open BOOLEAN NOT NULL,
  number INT UNSIGNED NOT NULL,
  title VARCHAR(200) NOT NULL,
  version VARCHAR(60) NOT NULL,
  seq INT UNSIGNED NOT NULL,
  published_at DATETIME(3) NOT NULL,
  -- What its screens show, so that it can be said which element somebody means.
  shown MEDIUMTEXT NOT NULL,
  UNIQUE KEY at_port (port),
  FOREIGN KEY (project_id) REFERENCES projects (id) ON DELETE CASCADE
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS published_files (
  project_id CHAR(12) CHARACTER SET ascii NOT NULL,
  path VARCHAR(300) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  type VARCHAR(100) CHARACTER SET ascii NOT NULL,
  bytes LONGBLOB NOT NULL,
  PRIMARY KEY (project_id, path),
  FOREIGN KEY (project_id) REFERENCES publications (project_id) ON DELETE CASCADE
) ENGINE=InnoDB;

-- What visitors of published apps said of an element.
CREATE TABLE IF NOT EXISTS notes (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  project_id CHAR(12) CHARACTER SET ascii NOT NULL,
  version VARCHAR(60) NOT NULL,
  path VARCHAR(500) NOT NULL,
  screen VARCHAR(200) CHARACTER SET ascii NULL,
  element VARCHAR(1000) CHARACTER SET ascii NULL,
  seen TEXT NOT NULL,
  text VARCHAR(2000) NOT NULL,
  author VARCHAR(80) NOT NULL,
  left_at DATETIME(3) NOT NULL,
  answer VARCHAR(2000) NULL,
  settled_at DATETIME(3) NULL,
  KEY of_project (project_id, id),
  FOREIGN KEY (project_id) REFERENCES projects (id) ON DELETE CASCADE
) ENGINE=InnoDB;
