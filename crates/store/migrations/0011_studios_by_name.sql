-- A database may hold several studios; each start opens its own by this name, which only the machine's owner sees.
ALTER TABLE studio ADD COLUMN name text;
-- There was one until now, and whoever started it never named it.
UPDATE studio SET name = CASE WHEN place = 1 THEN 'studio' ELSE 'studio-' || place END
FROM (SELECT id AS known, row_number() OVER (ORDER BY created_at, id) AS place FROM studio) AS numbered
WHERE id = known;
ALTER TABLE studio ALTER COLUMN name SET NOT NULL;
ALTER TABLE studio ADD CONSTRAINT studio_name UNIQUE (name);
