-- +goose Up
-- What closed jobs teach is asked anew when one is opened again, too.
DROP TRIGGER closed_job_changed ON jobs;
CREATE TRIGGER closed_job_added AFTER INSERT ON jobs
    FOR EACH ROW WHEN (NEW.handed_over_at IS NOT NULL) EXECUTE FUNCTION shop_changed();
CREATE TRIGGER closed_job_changed AFTER UPDATE ON jobs
    FOR EACH ROW WHEN (OLD.handed_over_at IS NOT NULL OR NEW.handed_over_at IS NOT NULL)
    EXECUTE FUNCTION shop_changed();

-- +goose Down
DROP TRIGGER closed_job_added ON jobs;
DROP TRIGGER closed_job_changed ON jobs;
CREATE TRIGGER closed_job_changed AFTER INSERT OR UPDATE ON jobs
    FOR EACH ROW WHEN (NEW.handed_over_at IS NOT NULL) EXECUTE FUNCTION shop_changed();
