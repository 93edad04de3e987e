-- Whether a batch would be made again.
ALTER TABLE batch ADD COLUMN liked TEXT;

-- A recipe's history goes through its bowls, put away or not.
DROP INDEX bowls_by_recipe;
CREATE INDEX bowls_by_recipe ON bowls (recipe_id, removed_at);
