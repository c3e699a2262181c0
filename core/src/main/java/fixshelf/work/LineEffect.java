package fixshelf.work;

import fixshelf.plan.Operation;
import fixshelf.plan.Step;
import fixshelf.table.Lineage;
import fixshelf.type.Amounts;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;

/// What a line did.
///
/// @param line its number, from 1
/// @param left rows that were there before and have no row now
/// @param added rows that come from no row before
/// @param rows what the line does with rows
/// @param cellsChanged cells whose value is another one than before
/// @param changes how many changes its parts made, where it is looked at: a cell that two of them change is two
/// @param valuesLost cells that held a value and are missing now, but for those that are made missing on purpose
/// @param columns how many columns there were and are, and which came and went
/// @param reports the tables that tell of its work, with their numbers of rows
/// @param begins whether it reads, or goes on from another line than the one above it
public record LineEffect(
        int line,
        long rowsBefore,
        long rowsAfter,
        long left,
        long added,
        Lineage.Rows rows,
        Columns columns,
        long cellsChanged,
        long changes,
        long valuesLost,
        Optional<Repeats> repeats,
        List<Counted> reports,
        boolean begins) {
    public LineEffect {
        reports = List.copyOf(reports);
    }

    /// The same, of another line that does the same with the same table.
    LineEffect of(Step step) {
        return new LineEffect(
                step.number(),
                rowsBefore,
                rowsAfter,
                left,
                added,
                rows,
                columns,
                cellsChanged,
                changes,
                valuesLost,
                repeats,
                reports,
                step.goesOn());
    }

    /// How rows repeat: groups with more than one row, and the largest of them.
    public record Repeats(long groups, long largest) {}

    /// The columns of a line.
    public record Columns(int before, int after, List<String> added, List<String> gone, int renamed) {}

    /// A report, and how many rows it has.
    ///
    /// @param breaks whether a run stops where it has any
    public record Counted(String name, String words, long rows, boolean breaks) {
        /// `3 rows without a match`; for one row in the singular.
        public String sentence() {
            String one = words.replaceFirst("\\b(row|key|column|value)s\\b", "$1")
                    .replaceFirst("\\b(match|vanish)\\b", "$1es")
                    .replaceFirst("\\bthat (repeat|break|lose)\\b", "that $1s");
            return String.format("%,d ", rows)
                    + (rows == 1 && words.contains("that")
                            ? one
                            : rows == 1 ? words.replaceFirst("\\b(row|key|column|value)s\\b", "$1") : words);
        }
    }

    /// What its reports say that have any row; of a line that matches keys first how many rows have a match.
    public List<String> told() {
        List<String> all = new ArrayList<>();
        matched().ifPresent(all::add);
        reports.stream().filter(r -> r.rows() > 0).map(Counted::sentence).forEach(all::add);
        return all;
    }

    /// Of a line that matches keys, how many rows have a match.
    public OptionalLong rowsWithMatch() {
        return reports.stream()
                .filter(r -> r.name().equals(Operation.Report.WITHOUT_MATCH))
                .mapToLong(r -> rowsBefore - r.rows())
                .findFirst();
    }

    /// The same in words.
    public Optional<String> matched() {
        return rowsWithMatch().stream()
                .mapToObj(n -> Amounts.of(n, "row") + " with a match")
                .findFirst();
    }

    public int columnsBefore() {
        return columns.before();
    }

    public int columnsAfter() {
        return columns.after();
    }

    public long rowsGone() {
        return left;
    }

    /// The effect in a few words, as it stands in the margin of a job card.
    public String margin() {
        if (begins) {
            return Amounts.of(rowsAfter, "row")
                    + (rowsGone() > 0 ? String.format(", %,d left out", rowsGone()) : "")
                    + (valuesLost > 0 ? String.format(", %,d lost", valuesLost) : "");
        }
        List<String> parts = new ArrayList<>();
        if (rowsBefore != rowsAfter || rows == Lineage.Rows.MERGED) {
            parts.add(String.format("%,d → %s", rowsBefore, Amounts.of(rowsAfter, "row")));
        } else if (left > 0) {
            parts.add(String.format("−%,d +", left) + Amounts.of(left, "row"));
        }
        if (!columns.added().isEmpty() || !columns.gone().isEmpty()) {
            parts.add(
                    columns.before() == columns.after()
                            ? String.format("−%,d +", columns.gone().size())
                                    + Amounts.of(columns.added().size(), "column")
                            : String.format("%,d → %s", columns.before(), Amounts.of(columns.after(), "column")));
        }
        if (columns.renamed() > 0) {
            parts.add(Amounts.of(columns.renamed(), "name"));
        }
        if (cellsChanged > 0) {
            parts.add(Amounts.of(cellsChanged, "cell"));
        }
        if (valuesLost > 0) {
            parts.add(String.format("%,d lost", valuesLost));
        }
        long broken = reports.stream()
                .filter(Counted::breaks)
                .mapToLong(Counted::rows)
                .sum();
        if (broken > 0) {
            parts.add("▲ " + Amounts.of(broken, "row"));
        } else if (reports.stream().anyMatch(Counted::breaks)) {
            parts.add("holds");
        }
        return parts.isEmpty() ? nothing() : String.join(", ", parts);
    }

    private String nothing() {
        return switch (rows) {
            case SAME -> "no change";
            case FEWER -> "no row leaves";
            case ANY, MERGED -> "the same rows";
        };
    }

    /// @param lost values that are none of the types that columns get as they are read
    static LineEffect reading(long read, long rows, int columns, long lost) {
        return from(1, read, rows, columns, lost);
    }

    /// A line whose table is that of another line, or of a file.
    ///
    /// @param read how many rows there were, of which some may not fit
    static LineEffect from(int line, long read, long rows, int columns) {
        return from(line, read, rows, columns, 0);
    }

    private static LineEffect from(int line, long read, long rows, int columns, long lost) {
        return new LineEffect(
                line,
                read,
                rows,
                read - rows,
                0,
                Lineage.Rows.SAME,
                new Columns(columns, columns, List.of(), List.of(), 0),
                0,
                0,
                lost,
                Optional.empty(),
                List.of(),
                true);
    }
}
