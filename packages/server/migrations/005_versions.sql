-- Which steps count is kept with them, so that no history is read as a whole to say what undo acts on.
ALTER TABLE changes
  ADD COLUMN IF NOT EXISTS standing ENUM('done', 'undone', 'dropped') NULL,
  ADD COLUMN IF NOT EXISTS standing_at INT UNSIGNED NULL,
  ADD COLUMN IF NOT EXISTS screens TEXT NULL,
  ADD KEY IF NOT EXISTS by_standing (project_id, standing, standing_at);

CREATE OR REPLACE TABLE standings_then AS
SELECT c.project_id, c.seq,
  COALESCE(m.last, c.seq) AS standing_at,
  CASE
    WHEN l.role IS NULL OR l.role = 'redo' THEN 'done'
    WHEN EXISTS (
      SELECT 1 FROM changes n
      WHERE n.project_id = c.project_id AND n.role = 'do' AND n.seq > m.last AND n.author <=> c.author
    ) THEN 'dropped'
    ELSE 'undone'
  END AS standing
FROM changes c
LEFT JOIN (
  SELECT project_id, of_seq, MAX(seq) AS last FROM changes WHERE role <> 'do' GROUP BY project_id, of_seq
) m ON m.project_id = c.project_id AND m.of_seq = c.seq
LEFT JOIN changes l ON l.project_id = c.project_id AND l.seq = m.last
WHERE c.role = 'do';

UPDATE changes c JOIN standings_then s ON s.project_id = c.project_id AND s.seq = c.seq
SET c.standing = s.standing, c.standing_at = s.standing_at
WHERE c.standing IS NULL;

DROP TABLE IF EXISTS standings_then;

CREATE TABLE IF NOT EXISTS snapshots (
  project_id CHAR(12) CHARACTER SET ascii NOT NULL,
  seq INT UNSIGNED NOT NULL,
  app LONGTEXT NOT NULL,
  PRIMARY KEY (project_id, seq),
  FOREIGN KEY (project_id) REFERENCES projects (id) ON DELETE CASCADE
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS versions (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  project_id CHAR(12) CHARACTER SET ascii NOT NULL,
  seq INT UNSIGNED NOT NULL,
  name VARCHAR(120) NOT NULL,
  made_at DATETIME(3) NOT NULL,
  KEY by_place (project_id, seq),
  FOREIGN KEY (project_id) REFERENCES projects (id) ON DELETE CASCADE
) ENGINE=InnoDB;

-- Screens of a next round that were read and are not part of the project yet.
CREATE TABLE IF NOT EXISTS rounds (
  project_id CHAR(12) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  doc LONGTEXT NOT NULL,
  whole BOOLEAN NOT NULL,
  ticket CHAR(36) CHARACTER SET ascii NULL,
  screens INT UNSIGNED NOT NULL,
  made_at DATETIME(3) NOT NULL,
  FOREIGN KEY (project_id) REFERENCES projects (id) ON DELETE CASCADE
) ENGINE=InnoDB;
