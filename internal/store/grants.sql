-- What the program's role may do. It owns nothing. Everybody's work changes; what
-- was recorded, or stands for a promise, is read and added to only.
REVOKE ALL ON ALL TABLES IN SCHEMA public FROM {role};
REVOKE ALL ON ALL FUNCTIONS IN SCHEMA public FROM {role};
GRANT USAGE ON SCHEMA public TO {role};
GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA public TO {role};
GRANT USAGE, SELECT ON ALL SEQUENCES IN SCHEMA public TO {role};
REVOKE INSERT, UPDATE, DELETE ON record_entries, record_head, record_tails, goose_db_version FROM {role};
REVOKE UPDATE, DELETE ON family_versions, shop_entries, copies, papers, recordings, recording_chunks,
    recording_notes, stock_moves, calibrations FROM {role};
REVOKE INSERT, DELETE ON shop FROM {role};
REVOKE DELETE ON jobs, people, customers, model_sheets FROM {role};
REVOKE UPDATE, DELETE ON sheet_versions FROM {role};
GRANT UPDATE (confirmed_by, confirmed_at) ON sheet_versions TO {role};
GRANT EXECUTE ON FUNCTION record_write(bigint, jsonb, text, text) TO {role};
