package fixshelf.profile;

import fixshelf.engine.Stop;
import fixshelf.language.emulation.Inliner;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import fixshelf.plan.Line;
import fixshelf.plan.Written;
import fixshelf.problem.Outcome;
import fixshelf.problem.ProblemException;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.Shelf;
import fixshelf.type.Literals;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/// Finds what would help against something odd: every value fix of the shelf that takes a text is tried on the column,
/// and operations where whole rows or columns are meant.
public final class Remedies {
    /// Fixes are first tried on so many values; the best of them on up to [#MOST_VALUES].
    private static final int FEW_VALUES = 300;

    private static final int MOST_VALUES = 20_000;
    private static final int MOST_WORDS = 20;
    private static final int SHOWN = 2;

    /// At least that share of the odd rows must be rid of it.
    private static final double ENOUGH = 0.5;

    private final DataLook data;
    private final List<Candidate> candidates;
    private final Language duckdb = Languages.find("duckdb").orElseThrow();
    private final Map<String, Optional<String>> codes = new HashMap<>();

    /// A fix whose first parameter takes a text.
    ///
    /// @param users how many pages of the shelf call it
    private record Candidate(FixPage page, Definition definition, int users) {}

    /// A value with what a fix made of it.
    private record Tried(String value, long rows, @Nullable Object result) {}

    public Remedies(DataLook data, Shelf shelf) {
        this.data = data;
        this.candidates = new ArrayList<>();
        for (FixPage page : shelf.fixes()) {
            boolean text = !page.parameters().isEmpty()
                    && page.parameters().getFirst().type().equals(Type.TEXT);
            if (text) {
                shelf.definition(page)
                        .value()
                        .ifPresent(d -> candidates.add(new Candidate(
                                page, d, shelf.usersOf(page.name()).size())));
            }
        }
    }

    /// The remedies of every finding of a table, the best first: at most two fixes and one operation.
    public Outcome<Map<Finding, List<Remedy>>> of(TableLook table) {
        return DataLook.guarded(() -> {
            List<Asked> asked = new ArrayList<>();
            for (Finding finding : table.all()) {
                if (finding.column() >= 0
                        && Cure.isKnown(finding.oddity())
                        && !finding.values().isEmpty()) {
                    ColumnLook column = table.columns().get(finding.column());
                    asked.add(new Asked(column, finding, new Cure(column, finding), new ArrayList<>()));
                }
            }
            keepValues(asked);
            for (Candidate candidate : candidates) {
                Stop.check();
                tryOn(candidate, asked);
            }
            Map<Finding, List<Remedy>> all = new LinkedHashMap<>();
            for (Finding finding : table.all()) {
                List<Remedy> remedies = new ArrayList<>();
                asked.stream().filter(a -> a.finding().equals(finding)).forEach(a -> remedies.addAll(best(a)));
                operation(table, finding)
                        .ifPresent(line -> remedies.add(
                                new Remedy(line.call(), line, finding.rows(), finding.rows(), 0, 0, false)));
                all.put(finding, List.copyOf(remedies));
            }
            return all;
        });
    }

    /// A finding that fixes can help against, and those that seem to.
    private record Asked(ColumnLook column, Finding finding, Cure cure, List<Scored> found) {}

    /// Rows without a value stay; those with an empty text or blanks would go as repeats of each
    /// other, so that there is no line for them.
    private static Optional<Line> withoutRepeats(ColumnLook column) {
        if (column.filled() + column.missing() < column.rows()) {
            return Optional.empty();
        }
        Line line = Line.of("drop_repeats", "keys", Written.words(List.of(column.name())))
                .with("keep", Optional.of(Written.word("last")));
        return Optional.of(
                column.missing() == 0 ? line : line.with("missing", Optional.of(Written.word("never_repeats"))));
    }

    private Optional<Line> operation(TableLook table, Finding finding) {
        List<String> names = table.columns().stream().map(ColumnLook::name).toList();
        String name = finding.column() < 0 ? "" : names.get(finding.column());
        return switch (finding.oddity()) {
            case NEVER_FILLED, CONSTANT -> Optional.of(Line.of("drop", "columns", Written.words(List.of(name))));
            case REPEATS -> withoutRepeats(table.columns().get(finding.column()));
            case BLANK_ROWS -> Optional.of(Line.of("leave_out_blank_rows", "columns", Written.word("all columns")));
            case SHIFTED -> Optional.of(Line.of("align_left", "columns", Written.words(names)));
            case NAMES_BELOW -> NamesBelow.line(table, finding);
            case HEADING_AGAIN -> withoutHeading(table, finding);
            case TOTALS, RULERS ->
                words(finding)
                        .map(w -> Line.of("leave_out_rows", "where", Written.word(column(name) + " IN (" + w + ")")));
            case WORDS_FOR_MISSING ->
                words(finding).map(w -> Line.of("make_missing", "columns", Written.words(List.of(name)))
                        .with("where", Optional.of(Written.word("it IN (" + w + ")"))));
            default -> Optional.empty();
        };
    }

    /// Leaves out rows that hold the names of two columns, both of which are filled in all rows that were found.
    private Optional<Line> withoutHeading(TableLook table, Finding finding) {
        List<SeenRow> rows =
                data.rows(RowFilter.of(finding), 0, FEW_VALUES).value().orElse(List.of());
        List<String> names = table.columns().stream()
                .filter(c -> rows.stream().allMatch(r -> isFilled(r.cells().get(c.index()))))
                .map(ColumnLook::name)
                .limit(2)
                .map(n -> "lower(trim(" + column(n) + ")) = "
                        + Literals.print(n.strip().toLowerCase(Locale.ROOT)))
                .toList();
        return names.size() < 2
                ? Optional.empty()
                : Optional.of(Line.of("leave_out_rows", "where", Written.word(String.join(" AND ", names))));
    }

    private static boolean isFilled(@Nullable String cell) {
        return cell != null && !ColumnTally.stripped(cell).isEmpty();
    }

    private static Optional<String> words(Finding finding) {
        return finding.values().size() > MOST_WORDS
                ? Optional.empty()
                : Optional.of(String.join(
                        ", ", finding.values().stream().map(Literals::print).toList()));
    }

    private static String column(String name) {
        return name.matches("[a-z_][a-z0-9_]*") ? name : "\"" + name.replace("\"", "\"\"") + "\"";
    }

    /// Tries a fix once for all columns with its usual arguments, and once more where a finding says another.
    private void tryOn(Candidate candidate, List<Asked> asked) {
        Map<List<Expr.Literal>, Map<Integer, List<Tried>>> tried = new HashMap<>();
        for (Asked one : asked) {
            Optional<List<Expr.Literal>> arguments = arguments(candidate.definition(), one.finding());
            if (arguments.isEmpty()) {
                continue;
            }
            List<Tried> rows = tried.computeIfAbsent(arguments.get(), a -> tried(candidate, a, "tried_few"))
                    .getOrDefault(one.column().index(), List.of());
            scored(candidate, arguments.get(), one, rows).filter(Scored::helps).ifPresent(one.found()::add);
        }
    }

    private Optional<Scored> scored(Candidate candidate, List<Expr.Literal> arguments, Asked asked, List<Tried> rows) {
        return rows.isEmpty()
                ? Optional.empty()
                : Optional.of(new Scored(
                        candidate,
                        arguments,
                        remedy(candidate, arguments, asked.column(), asked.cure(), rows),
                        cleaned(asked.cure(), rows)));
    }

    /// The best of what seemed to help, tried on more values.
    private List<Remedy> best(Asked asked) {
        if (asked.found().isEmpty()) {
            return List.of();
        }
        int column = asked.column().index();
        String cell = "s" + column;
        data.session()
                .run("CREATE OR REPLACE TABLE tried AS SELECT " + column + " AS c, " + cell
                        + " AS v, count(*) AS n FROM staged WHERE " + cell
                        + " IS NOT NULL GROUP BY ALL ORDER BY n DESC, v LIMIT " + MOST_VALUES);
        data.session()
                .run("INSERT INTO tried SELECT * FROM tried_few WHERE c = " + column
                        + " AND v NOT IN (SELECT v FROM tried)");
        return asked.found().stream()
                .sorted(Scored.BEST_FIRST)
                .limit(SHOWN + 1L)
                .flatMap(s -> scored(
                        s.candidate(),
                        s.arguments(),
                        asked,
                        tried(s.candidate(), s.arguments(), "tried").getOrDefault(column, List.of()))
                        .stream())
                .filter(Scored::helps)
                .sorted(Scored.BEST_FIRST)
                .limit(SHOWN)
                .map(Scored::remedy)
                .toList();
    }

    /// A remedy with what it is worth.
    ///
    /// @param cleaned rows that were odd in some other way too, and are so no more
    private record Scored(Candidate candidate, List<Expr.Literal> arguments, Remedy remedy, long cleaned) {
        static final Comparator<Scored> BEST_FIRST = Comparator.comparingLong(Scored::worth)
                .thenComparingLong(Scored::cleaned)
                .thenComparingInt(s -> s.candidate().users())
                .reversed()
                .thenComparing(s -> s.remedy().name());

        boolean helps() {
            return remedy.rid() > 0 && remedy.rid() >= remedy.odd() * ENOUGH && worth() > 0;
        }

        /// A value that is lost weighs twice as much as one that changes without need, and that as much as one that is
        /// helped: what changes more rows than it helps is no remedy.
        long worth() {
            return remedy.rid() - 2 * remedy.missing() - remedy.others();
        }
    }

    private static long cleaned(Cure cure, List<Tried> rows) {
        return rows.stream()
                .filter(t -> !cure.isOdd(t.value()) && cure.isCleaned(t.value(), t.result()))
                .mapToLong(Tried::rows)
                .sum();
    }

    /// Of every column that is asked for the odd values, the commonest, and some from everywhere between.
    private void keepValues(List<Asked> asked) {
        data.session().run("CREATE OR REPLACE TABLE odd_values (c VARCHAR, v VARCHAR)");
        try (var rows = data.session().append("odd_values")) {
            asked.forEach(a -> a.finding().values().stream()
                    .limit(FEW_VALUES)
                    .forEach(v -> rows.add(List.of(String.valueOf(a.column().index()), v))));
        }
        data.session().run("CREATE OR REPLACE TABLE tried_few (c INTEGER, v VARCHAR, n BIGINT)");
        asked.stream().map(a -> a.column().index()).distinct().forEach(i -> data.session()
                .run("INSERT INTO tried_few SELECT " + i
                        + ", v, n FROM (SELECT v, n, row_number() OVER (ORDER BY n DESC, v)"
                        + " AS common, row_number() OVER (ORDER BY hash(v)) AS other, v IN (SELECT v FROM odd_values"
                        + " WHERE c = '" + i + "') AS odd FROM (SELECT s" + i
                        + " AS v, count(*) AS n FROM staged WHERE s" + i
                        + " IS NOT NULL GROUP BY 1)) WHERE odd OR common <= "
                        + FEW_VALUES + " OR other <= " + FEW_VALUES));
    }

    /// The arguments after the first: as they usually are, or what the finding says.
    private static Optional<List<Expr.Literal>> arguments(Definition fix, Finding finding) {
        List<Expr.Literal> all = new ArrayList<>();
        for (Parameter parameter : fix.parameters().subList(1, fix.parameters().size())) {
            Optional<Expr.Literal> said =
                    parameter.type().equals(Type.TEXT) && all.isEmpty() ? said(finding) : Optional.empty();
            Optional<Expr.Literal> argument = said.or(parameter::fallback);
            if (argument.isEmpty()) {
                return Optional.empty();
            }
            all.add(argument.get());
        }
        return Optional.of(all);
    }

    private static Optional<Expr.Literal> said(Finding finding) {
        return switch (finding.oddity()) {
            case UNITS, EMPTY_PARTS -> Optional.of(Expr.Literal.text(finding.detail()));
            case WORDS_FOR_MISSING ->
                finding.values().size() == 1
                        ? Optional.of(Expr.Literal.text(finding.values().getFirst()))
                        : Optional.empty();
            default -> Optional.empty();
        };
    }

    /// What a fix makes of the values of a table, by column; nothing where it does not run on them.
    private Map<Integer, List<Tried>> tried(Candidate candidate, List<Expr.Literal> arguments, String table) {
        Map<String, Expr> given = new LinkedHashMap<>();
        List<Parameter> parameters = candidate.definition().parameters();
        given.put(key(parameters.getFirst()), new Expr.Name("v", Type.TEXT));
        for (int i = 1; i < parameters.size(); i++) {
            given.put(key(parameters.get(i)), arguments.get(i - 1));
        }
        Map<Integer, List<Tried>> rows = new HashMap<>();
        Optional<String> code = codes.computeIfAbsent(candidate.page().name() + arguments, _ -> duckdb.expression(
                        Inliner.body(candidate.definition().body(), given))
                .value());
        if (code.isEmpty()) {
            return rows;
        }
        try {
            data.session().each("SELECT c, v, n, " + code.get() + " FROM " + table, r -> rows.computeIfAbsent(
                            ((Number) Objects.requireNonNull(r.get(0))).intValue(), _ -> new ArrayList<>())
                    .add(new Tried(
                            (String) Objects.requireNonNull(r.get(1)),
                            (Long) Objects.requireNonNull(r.get(2)),
                            r.get(3))));
            return rows;
        } catch (ProblemException e) {
            Stop.check();
            // A fix that does not run on these values is no remedy for them.
            return Map.of();
        }
    }

    private static String key(Parameter parameter) {
        return parameter.name().toLowerCase(Locale.ROOT);
    }

    private Remedy remedy(
            Candidate candidate, List<Expr.Literal> arguments, ColumnLook column, Cure cure, List<Tried> rows) {
        long odd = 0;
        long rid = 0;
        long others = 0;
        long missing = 0;
        for (Tried tried : rows) {
            if (cure.isOdd(tried.value())) {
                odd += tried.rows();
                rid += cure.isRid(tried.value(), tried.result()) ? tried.rows() : 0;
            } else if (tried.result() == null) {
                missing += Characters.isBlank(tried.value()) || tried.value().isEmpty() ? 0 : tried.rows();
            } else if (!cure.isOddAnyhow(tried.value()) && !Cure.isSame(tried.value(), tried.result())) {
                others += tried.rows();
            }
        }
        return new Remedy(candidate.page().name(), line(candidate, arguments, column), odd, rid, others, missing, true);
    }

    private static Line line(Candidate candidate, List<Expr.Literal> arguments, ColumnLook column) {
        Map<String, Written> blanks = new LinkedHashMap<>();
        blanks.put("columns", Written.words(List.of(column.name())));
        List<Parameter> parameters = candidate.definition().parameters();
        for (int i = 1; i < parameters.size(); i++) {
            Expr.Literal argument = arguments.get(i - 1);
            if (!parameters.get(i).fallback().equals(Optional.of(argument))) {
                blanks.put(parameters.get(i).name(), Written.word(String.valueOf(argument.value())));
            }
        }
        return new Line(candidate.page().name(), blanks);
    }

    /// The lines of chosen remedies in an order that works: values first, then rows, then columns; one line for a call
    /// that several columns need alike. Names of columns that stand in a row come first, and alone: all other lines
    /// would name columns that are called otherwise then.
    public static List<Line> lines(List<Remedy> chosen) {
        Optional<Line> names = chosen.stream()
                .map(Remedy::line)
                .filter(l -> l.call().equals("heading_row"))
                .findFirst();
        if (names.isPresent()) {
            return List.of(names.get());
        }
        List<Line> lines = new ArrayList<>();
        chosen.stream()
                .sorted(Comparator.comparingInt(r -> turn(r.line().call())))
                .forEach(r -> {
                    Line line = r.line();
                    Optional<Line> same = lines.stream()
                            .filter(l -> l.call().equals(line.call())
                                    && r.line().blanks().containsKey("columns")
                                    && l.with("columns", Optional.empty())
                                            .equals(line.with("columns", Optional.empty())))
                            .findFirst();
                    Optional<List<String>> more = line.written("columns").flatMap(Written::texts);
                    Optional<List<String>> there =
                            same.flatMap(l -> l.written("columns")).flatMap(Written::texts);
                    if (same.isPresent() && more.isPresent() && there.isPresent()) {
                        List<String> all = new ArrayList<>(there.get());
                        more.get().stream().filter(c -> !all.contains(c)).forEach(all::add);
                        lines.set(
                                lines.indexOf(same.get()), same.get().with("columns", Optional.of(Written.words(all))));
                    } else {
                        lines.add(line);
                    }
                });
        return List.copyOf(lines);
    }

    /// Rows that are no data leave before values are read; repeats after values are alike; columns last.
    private static int turn(String call) {
        return switch (call) {
            case "leave_out_blank_rows" -> 0;
            case "align_left", "leave_out_rows" -> 1;
            case "make_missing" -> 2;
            case "drop_repeats" -> 4;
            case "drop" -> 5;
            default -> 3;
        };
    }
}
