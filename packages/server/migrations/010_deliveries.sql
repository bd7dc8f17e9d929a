-- When code was handed over, and which place of the history it was of: that says which code it was.
CREATE TABLE IF NOT EXISTS deliveries (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  project_id CHAR(12) CHARACTER SET ascii NOT NULL,
  seq INT UNSIGNED NOT NULL,
  name VARCHAR(120) NOT NULL,
  kind ENUM('zip', 'push') CHARACTER SET ascii NOT NULL,
  made_at DATETIME(3) NOT NULL,
  UNIQUE KEY once (project_id, kind, seq, name),
  FOREIGN KEY (project_id) REFERENCES projects (id) ON DELETE CASCADE
) ENGINE=InnoDB;
