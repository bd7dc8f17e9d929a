-- What was a condition is a variable that is yes or no.
UPDATE projects
SET app = JSON_SET(JSON_REMOVE(app, '$.conditions'), '$.variables', JSON_EXTRACT(app, '$.conditions'))
WHERE JSON_CONTAINS_PATH(app, 'one', '$.conditions') AND NOT JSON_CONTAINS_PATH(app, 'one', '$.variables');

UPDATE snapshots
SET app = JSON_SET(JSON_REMOVE(app, '$.conditions'), '$.variables', JSON_EXTRACT(app, '$.conditions'))
WHERE JSON_CONTAINS_PATH(app, 'one', '$.conditions') AND NOT JSON_CONTAINS_PATH(app, 'one', '$.variables');

UPDATE projects SET app = REPLACE(app, '"table":"conditions"', '"table":"variables"')
WHERE app LIKE '%"table":"conditions"%';
UPDATE snapshots SET app = REPLACE(app, '"table":"conditions"', '"table":"variables"')
WHERE app LIKE '%"table":"conditions"%';
UPDATE changes SET forward = REPLACE(forward, '"table":"conditions"', '"table":"variables"')
WHERE forward LIKE '%"table":"conditions"%';
UPDATE changes SET inverse = REPLACE(inverse, '"table":"conditions"', '"table":"variables"')
WHERE inverse LIKE '%"table":"conditions"%';
