-- Recipes of the household, as they are written down, and what stands in the bowls of one that is being made; both as JSON: they
-- are written and read whole.
CREATE TABLE recipe (
    id         INTEGER PRIMARY KEY,
    parent_id  INTEGER REFERENCES recipe (id) ON DELETE SET NULL,
    at         INTEGER NOT NULL,
    text       TEXT    NOT NULL CHECK (json_valid(text)),
    removed_at INTEGER
) STRICT;

CREATE TABLE bowls (
    id         INTEGER PRIMARY KEY,
    recipe_id  INTEGER NOT NULL REFERENCES recipe (id) ON DELETE CASCADE,
    at         INTEGER NOT NULL,
    factor     REAL    NOT NULL CHECK (factor > 0),
    base       TEXT    NOT NULL CHECK (json_valid(base)),
    actual     TEXT    NOT NULL CHECK (json_valid(actual)),
    mixed_at   INTEGER,
    removed_at INTEGER
) STRICT;
CREATE INDEX bowls_by_recipe ON bowls (recipe_id) WHERE removed_at IS NULL;
