-- When somebody said that a block of the day began and was done; the household's own pace is learned from them.
ALTER TABLE day_slip ADD COLUMN began_at INTEGER;
ALTER TABLE day_slip ADD COLUMN ended_at INTEGER;

-- When it was agreed that the juice of a batch waits overnight in the refrigerator.
ALTER TABLE batch ADD COLUMN chilled_at INTEGER;
