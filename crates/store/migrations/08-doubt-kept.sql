-- What was found at the lid that sent a jar back to the canner, so that taking the decision back finds it again.
ALTER TABLE jar_past ADD COLUMN seal_detail TEXT CHECK (seal_detail IN ('broken', 'doubtful'));
