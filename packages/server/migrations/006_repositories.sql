-- Where the code of a project is pushed to. Tokens are never kept.
CREATE TABLE IF NOT EXISTS repositories (
  project_id CHAR(12) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  address VARCHAR(500) NOT NULL,
  branch VARCHAR(200) NOT NULL,
  commit_hash VARCHAR(64) CHARACTER SET ascii NULL,
  seq INT UNSIGNED NULL,
  pushed_at DATETIME(3) NULL,
  FOREIGN KEY (project_id) REFERENCES projects (id) ON DELETE CASCADE
) ENGINE=InnoDB;
