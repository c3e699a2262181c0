package fixshelf.work;

import fixshelf.engine.DuckSession;
import fixshelf.engine.Grid;
import fixshelf.plan.Step;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.table.Field;
import fixshelf.table.Lineage;
import fixshelf.type.Column;
import fixshelf.type.Literals;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/// The tables after two lines of a job beside each other: rows meet where they come from the same row of the last line
/// that both go back to. Columns that differ stand first, each twice.
///
/// @param line the earlier one, or the one on the other branch
/// @param other the later one
/// @param columns as they stand in the rows
/// @param rows how many rows there are
/// @param differing how many cells that both have differ
/// @param onlyLine how many rows only the table of `line` has
/// @param onlyOther how many rows only the table of `other` has
public record Beside(
        int line, int other, List<Shown> columns, long rows, long differing, long onlyLine, long onlyOther) {
    public Beside {
        columns = List.copyOf(columns);
    }

    private static final String TABLE = "beside_each_other";

    /// Of which of the two tables a column is.
    public enum Of {
        /// Of both, without any difference: it stands once.
        BOTH,
        LINE,
        OTHER
    }

    /// A column, called as in its table with the number of the line behind it where it stands for one of them.
    ///
    /// @param key its name in the query
    /// @param paired whether it is the second of a column that stands twice
    public record Shown(Column column, Of of, String key, boolean paired) {}

    /// The two tables; `line` and `other` are in any order.
    public static Outcome<Beside> of(Preview preview, PlannedJob job, int line, int other) {
        return Preview.guarded(() -> new Making(preview, job, Math.min(line, other), Math.max(line, other)).all());
    }

    /// Some rows, from `offset`, counted from 0.
    public Outcome<List<PreviewRow>> rows(Preview preview, long offset, int limit) {
        return Preview.guarded(() -> {
            String keys = columns.stream().map(Shown::key).collect(Collectors.joining(", "));
            Grid grid = preview.session()
                    .query("SELECT lp, op, " + keys + " FROM " + TABLE + " ORDER BY n LIMIT " + limit + " OFFSET "
                            + offset);
            return grid.rows().stream().map(this::row).toList();
        });
    }

    private PreviewRow row(List<@Nullable Object> values) {
        Object here = values.get(0);
        Object there = values.get(1);
        boolean both = here != null && there != null;
        List<PreviewRow.Cell> cells = new ArrayList<>();
        for (int c = 0; c < columns.size(); c++) {
            Object value = values.get(c + 2);
            boolean differs = columns.get(c).paired() && both && !Objects.equals(text(value), text(values.get(c + 1)));
            cells.add(new PreviewRow.Cell(value, value, differs));
        }
        PreviewRow.Mark mark =
                both ? PreviewRow.Mark.NONE : here != null ? PreviewRow.Mark.LEAVES : PreviewRow.Mark.ONLY_LATER;
        long place = ((Number) Objects.requireNonNull(here == null ? there : here)).longValue();
        return new PreviewRow(place + 1, mark, cells);
    }

    private static @Nullable String text(@Nullable Object value) {
        return value == null ? null : Literals.bare(value);
    }

    /// `3 rows are only at line 2, 1 row is only at line 7; 214 cells differ.`
    public String sentence() {
        List<String> parts = new ArrayList<>();
        if (onlyLine > 0) {
            parts.add(rows(onlyLine) + " only at line " + line);
        }
        if (onlyOther > 0) {
            parts.add(rows(onlyOther) + " only at line " + other);
        }
        String cells = differing == 0
                ? "no cell that both have differs"
                : String.format("%,d %s", differing, differing == 1 ? "cell differs" : "cells differ");
        return (parts.isEmpty() ? "" : String.join(", ", parts) + "; ") + cells + ".";
    }

    private static String rows(long count) {
        return String.format("%,d %s", count, count == 1 ? "row is" : "rows are");
    }

    private record Pair(Field here, Field there) {}

    /// @param line the earlier line
    private record Making(Preview preview, PlannedJob job, int line, int other) {
        Beside all() {
            DuckSession session = preview.session();
            int shared = shared();
            List<Field> here = step(line).fields();
            List<Field> there = step(other).fields();
            List<Pair> pairs = pairs(here, there);
            List<String> cells = new ArrayList<>();
            here.forEach(f -> cells.add("a." + f.key() + " AS x" + f.id()));
            there.forEach(f -> cells.add("b." + f.key() + " AS y" + f.id()));
            session.run("CREATE OR REPLACE TABLE " + TABLE
                    + " AS SELECT row_number() OVER (ORDER BY lp NULLS LAST, op) AS n, * FROM (SELECT a.p AS lp, b.p AS op, "
                    + String.join(", ", cells) + " FROM (" + joined(line, shared) + ") AS a FULL JOIN ("
                    + joined(other, shared) + ") AS b ON a.root = b.root)");
            String counts = pairs.stream()
                    .map(p -> ", count(*) FILTER (WHERE lp IS NOT NULL AND op IS NOT NULL AND CAST(x"
                            + p.here().id() + " AS VARCHAR) IS DISTINCT FROM CAST(y"
                            + p.there().id() + " AS VARCHAR))")
                    .collect(Collectors.joining());
            List<@Nullable Object> numbers = session.query("SELECT count(*), count(*) FILTER (WHERE op IS NULL), "
                            + "count(*) FILTER (WHERE lp IS NULL)" + counts + " FROM " + TABLE)
                    .rows()
                    .getFirst();
            List<Shown> columns = new ArrayList<>();
            List<Shown> same = new ArrayList<>();
            long differing = 0;
            for (int i = 0; i < pairs.size(); i++) {
                Pair pair = pairs.get(i);
                long differ = number(numbers, i + 3);
                differing += differ;
                if (differ > 0 || !pair.here().column().equals(pair.there().column())) {
                    columns.add(shown(pair.here(), Of.LINE, false));
                    columns.add(shown(pair.there(), Of.OTHER, true));
                } else {
                    String key = "coalesce(x" + pair.here().id() + ", y"
                            + pair.there().id() + ")";
                    same.add(new Shown(pair.here().column(), Of.BOTH, key, false));
                }
            }
            here.stream()
                    .filter(f -> pairs.stream().noneMatch(p -> p.here() == f))
                    .forEach(f -> columns.add(shown(f, Of.LINE, false)));
            there.stream()
                    .filter(f -> pairs.stream().noneMatch(p -> p.there() == f))
                    .forEach(f -> columns.add(shown(f, Of.OTHER, false)));
            columns.addAll(same);
            return new Beside(
                    line, other, columns, number(numbers, 0), differing, number(numbers, 1), number(numbers, 2));
        }

        private static long number(List<@Nullable Object> numbers, int at) {
            return ((Number) Objects.requireNonNull(numbers.get(at))).longValue();
        }

        /// The columns that are the same one in both tables: it itself, or another of its name.
        private static List<Pair> pairs(List<Field> here, List<Field> there) {
            List<Pair> pairs = new ArrayList<>();
            for (Field now : there) {
                here.stream()
                        .filter(f -> f.id() == now.id())
                        .findFirst()
                        .or(() -> here.stream()
                                .filter(f -> f.name().equalsIgnoreCase(now.name())
                                        && there.stream().noneMatch(t -> t.id() == f.id()))
                                .findFirst())
                        .ifPresent(f -> pairs.add(new Pair(f, now)));
            }
            return pairs;
        }

        private Shown shown(Field field, Of of, boolean paired) {
            Column column = new Column(
                    field.name() + " at " + (of == Of.LINE ? line : other),
                    field.column().type());
            return new Shown(column, of, (of == Of.LINE ? "x" : "y") + field.id(), paired);
        }

        private Step step(int number) {
            return job.plan().steps().get(number - 1);
        }

        private List<Integer> back(int from) {
            List<Integer> path = new ArrayList<>(List.of(from));
            while (path.getLast() > 1) {
                path.add(job.plan().before(path.getLast()).number());
            }
            return path;
        }

        /// The last line that both go back to.
        private int shared() {
            List<Integer> there = back(other);
            return back(line).stream().filter(there::contains).findFirst().orElse(1);
        }

        private long rowsAt(int number) {
            return preview.session().number("SELECT count(*) FROM " + preview.tableOf(job, number));
        }

        /// The rows after a line, and in `root` the place of the row that each comes from, at a line that it goes back
        /// to. Where rows were merged, a row stands once for each that it was made of.
        private String joined(int from, int to) {
            String tables = preview.tableOf(job, from) + " AS t" + from;
            int last = from;
            for (int at : back(from).subList(1, back(from).size())) {
                if (last <= to) {
                    break;
                }
                Step step = step(last);
                String on = step.rows() == Lineage.Rows.MERGED
                        ? new RowPaths(preview, job)
                                .sameGroup(step)
                                .replace("n.c", "t" + last + ".c")
                                .replace("b.c", "t" + at + ".c")
                        : "t" + last + ".o = t" + at + ".p";
                if (on.equals("true") && rowsAt(last) > 1) {
                    throw new ProblemException(Problem.error(
                            Code.ARGUMENTS,
                            job.where(last),
                            "Line " + last + " makes one row of several and keeps no key of them, so that rows before"
                                    + " and after it do not belong to each other.",
                            "Look at two lines before it, or at two after it."));
                }
                tables += " LEFT JOIN " + preview.tableOf(job, at) + " AS t" + at + " ON " + (on);
                last = at;
            }
            return "SELECT t" + from + ".*, t" + last + ".p AS root FROM " + tables;
        }
    }
}
