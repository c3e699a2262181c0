package fixshelf.work;

import fixshelf.engine.Rows;
import fixshelf.plan.AlteredNumbers;
import fixshelf.plan.Operation;
import fixshelf.plan.Step;
import fixshelf.table.Relation;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// What is told beside the lines of a preview, out of the tables that it keeps.
final class ReportTables {
    private final Preview preview;
    private int nextTable;

    ReportTables(Preview preview) {
        this.preview = preview;
    }

    /// How many rows each report of a line has.
    ///
    /// @param table the rows after it
    /// @param changed how many cells it changed
    List<LineEffect.Counted> counted(PlannedJob job, Step step, String table, long changed) {
        Map<Relation, String> shared = sharedCells(job, step);
        try {
            return step.reports().stream()
                    .map(r -> new LineEffect.Counted(
                            r.name(), r.words(), counted(job, step, r, table, changed, shared), r.breaks()))
                    .toList();
        } finally {
            shared.values().forEach(t -> preview.session().run("DROP TABLE " + t));
        }
    }

    private long counted(
            PlannedJob job,
            Step step,
            Operation.Report report,
            String table,
            long changed,
            Map<Relation, String> shared) {
        if (!AlteredNumbers.isReport(report)) {
            String rows = Rows.beside(report.relation(), preview.bases(job), shared);
            return preview.session().number("SELECT count(*) FROM (" + rows + ")");
        }
        return changed == 0
                ? 0
                : preview.session().number(altered(job, step, report, table).count());
    }

    /// A query for a report, out of the tables that are there where it tells of changed cells.
    String query(PlannedJob job, Operation.Report report) {
        Optional<Step> told = job.plan().steps().stream()
                .filter(s ->
                        AlteredNumbers.isReport(report) && s.reports().stream().anyMatch(r -> r == report))
                .findFirst();
        return told.map(s -> altered(job, s, report, preview.tableOf(job, s.number()))
                        .query(preview.bases(job)))
                .orElseGet(() -> Rows.beside(report.relation(), preview.bases(job)));
    }

    private AlteredRows altered(PlannedJob job, Step step, Operation.Report report, String table) {
        Step last = job.plan().before(step.number());
        return new AlteredRows(report, preview.tableOf(job, last.number()), last.fields(), table);
    }

    /// Tables of cells that several reports look at, such as keys that went through a fix: worked out once.
    private Map<Relation, String> sharedCells(PlannedJob job, Step step) {
        Map<Relation, String> tables = new IdentityHashMap<>();
        for (Relation cells : step.cellsOfSeveralReports()) {
            String name = "shared_" + nextTable++;
            preview.session().run("CREATE TABLE " + name + " AS " + Rows.beside(cells, preview.bases(job)));
            tables.put(cells, name);
        }
        return tables;
    }
}
