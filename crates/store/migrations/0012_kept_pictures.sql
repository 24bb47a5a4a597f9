-- Of the picture as it is kept: its file is named by it, so that two that were sent under one id at once never share a file, and a
-- backup can tell a broken picture. Pictures of before lie under their id alone.
ALTER TABLE photograph ADD COLUMN kept_digest bytea;
