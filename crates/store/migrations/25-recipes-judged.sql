-- Whether the strength of vinegar and the labels of packets were asked of bowls; of those from before they were not.
ALTER TABLE bowls ADD COLUMN labels_asked INTEGER NOT NULL DEFAULT 1 CHECK (labels_asked IN (0, 1));
UPDATE bowls SET labels_asked = 0;

-- Whether a sample at the pH bench was drained of its juice.
ALTER TABLE bench_ph ADD COLUMN drained INTEGER CHECK (drained IN (0, 1));
