package fixshelf.operations;

import fixshelf.plan.Absent;
import fixshelf.language.pattern.RegexParser;
import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;

/// Columns whose names are made of parts become rows; a part may stay a column.
final class HeadingsToRows extends BuiltIn {
    private static final int LONGEST_NAME = 1_000;
    private static final int MOST_STEPS = 1_000_000;

    static final Blank<List<Field>> COLUMNS = Blank.needed("columns", ColumnKinds.COLUMNS, "Which columns.");
    static final Blank<String> PATTERN = Blank.needed(
            "pattern", ValueKinds.TEXT, "A pattern of the whole name, with a group for each part: (.+)_([0-9]{4}).");
    static final Blank<List<String>> PARTS =
            Blank.needed("parts", ColumnKinds.NEW_NAMES, "What the parts are called, one for each group.");
    static final Blank<String> STAYS =
            Blank.optional("stays", ColumnKinds.NEW_NAME, "The part whose values stay columns, if one does.");
    static final Blank<String> VALUE = Blank.usually(
            "values_in", ColumnKinds.NEW_NAME, "value", "The new column that takes the values, where no part stays.");
    static final Blank<String> MISSING = Blank.usually(
            "missing", ValueKinds.choice("drop", "keep"), "drop", "Whether a row without any value is there.");

    HeadingsToRows() {
        super(
                "headings_to_rows",
                "Make rows of {columns}, whose names are {parts} by {pattern}",
                new Meaning(
                        "Unpivot columns whose headings hold several things, as spent_2025 and visits_2025 do: each part becomes a column of texts, and one of them may stay columns. Wide to long with several values.",
                        "drop: a row without any value is not there, and what vanishes wholly is reported; keep: it is. A column that is not there for a part gives missing values.",
                        "An empty text is a value.",
                        "Row by row, and in each by the first columns of the parts.",
                        "",
                        "Parts are texts. The columns that become one have one type; whole and exact numbers become exact.",
                        "The new names must be free; a name that the pattern does not match is a problem.",
                        "vanished: the rows that give none.",
                        "The same in all; the pattern is applied to the names, not in the language."),
                List.of(COLUMNS, PATTERN, PARTS, STAYS, VALUE, MISSING, Absent.BLANK),
                List.of(
                        new TableExample(
                                "A part stays",
                                Table.of(
                                        "k | spent_24 integer | spent_25 integer | visits_25 integer",
                                        "'1' | 5 | 7 | 2",
                                        "'2' | NULL | NULL | 4"),
                                "headings_to_rows: [spent_24, spent_25, visits_25]\npattern: '([a-z]+)_([0-9]+)'\nparts: [what, year]\nstays: what",
                                Table.of(
                                        "k | year | spent integer | visits integer",
                                        "'1' | '24' | 5 | NULL",
                                        "'1' | '25' | 7 | 2",
                                        "'2' | '25' | NULL | 4")),
                        new TableExample(
                                "None stays",
                                Table.of("k | a_x | b_x", "'1' | 'p' | NULL", "'2' | 'q' | 'r'"),
                                "headings_to_rows: [a_x, b_x]\npattern: (.)_(.)\nparts: [first, second]\nmissing: keep",
                                Table.of(
                                        "k | first | second | value",
                                        "'1' | 'a' | 'x' | 'p'",
                                        "'1' | 'b' | 'x' | NULL",
                                        "'2' | 'a' | 'x' | 'q'",
                                        "'2' | 'b' | 'x' | 'r'"))));
    }

    /// The columns by the parts that become rows, and among them by the part that stays.
    private record Sets(Map<List<String>, Map<String, Field>> rows, List<String> parts, List<String> values) {}

    @Override
    public Resolution resolve(Given given) {
        List<Problem> problems = new ArrayList<>();
        Optional<Sets> found = sets(given, problems);
        if (found.isEmpty() || !problems.isEmpty()) {
            return new Resolution.Refused(problems);
        }
        Sets sets = found.get();
        List<Field> columns = given.get(COLUMNS);
        List<Field> others = given.fields().stream()
                .filter(f -> columns.stream().noneMatch(c -> c.id() == f.id()))
                .toList();
        Shape taken = new Shape(others);
        java.util.stream.Stream.concat(sets.parts().stream(), sets.values().stream())
                .filter(n -> taken.find(n).isPresent())
                .forEach(n -> given.meets(n).ifPresent(problems::add));
        List<Field> made = new ArrayList<>();
        for (String value : sets.values()) {
            List<Field> same = sets.rows().values().stream()
                    .flatMap(r -> Optional.ofNullable(r.get(value)).stream())
                    .toList();
            ColumnsToRows.type(same, problems).ifPresent(t -> made.add(given.field(value, t)));
        }
        return problems.isEmpty() ? rows(given, sets, made, others) : new Resolution.Refused(problems);
    }

    private static Optional<Sets> sets(Given given, List<Problem> problems) {
        List<String> parts = given.get(PARTS);
        String written = given.get(PATTERN);
        if (!RegexParser.parse(written).isPresent()) {
            problems.addAll(RegexParser.parse(written).problems());
            return Optional.empty();
        }
        Pattern pattern = Pattern.compile(written);
        int groups = pattern.matcher("").groupCount();
        Optional<String> stays = given.find(STAYS);
        if (groups != parts.size() || stays.isPresent() && (!parts.contains(stays.get()) || groups == 1)) {
            problems.add(Given.problem(
                    Code.ARGUMENTS,
                    groups != parts.size()
                            ? "The pattern has " + groups + " groups, and there are " + parts.size() + " parts."
                            : stays.get() + " is not one of several parts.",
                    "Put each part of the name in round brackets, and name them in order."));
            return Optional.empty();
        }
        int staying = stays.map(parts::indexOf).orElse(-1);
        Map<List<String>, Map<String, Field>> rows = new LinkedHashMap<>();
        List<String> values = new ArrayList<>();
        for (Field column : given.get(COLUMNS)) {
            Matcher matcher = pattern.matcher(new Bounded(column.name(), new int[] {MOST_STEPS}));
            if (column.name().length() > LONGEST_NAME || !matches(matcher)) {
                problems.add(Given.problem(
                        Code.NO_SUCH_COLUMN,
                        "The name " + column.name() + " is not as the pattern says.",
                        "Name only columns that are, or change the pattern."));
                continue;
            }
            List<String> key = IntStream.range(0, groups)
                    .filter(g -> g != staying)
                    .mapToObj(g -> Optional.ofNullable(matcher.group(g + 1)).orElse(""))
                    .toList();
            String value = staying < 0
                    ? given.get(VALUE)
                    : Optional.ofNullable(matcher.group(staying + 1)).orElse("");
            if (!values.contains(value)) {
                values.add(value);
            }
            Field before = rows.computeIfAbsent(key, _ -> new LinkedHashMap<>()).putIfAbsent(value, column);
            if (before != null || value.isBlank()) {
                problems.add(Given.problem(
                        Code.NAME_CLASH,
                        before == null
                                ? "The part of " + column.name() + " that stays is empty."
                                : before.name() + " and " + column.name() + " have the same parts.",
                        "Name more parts, or change the pattern."));
            }
        }
        List<String> kept = IntStream.range(0, groups)
                .filter(g -> g != staying)
                .mapToObj(parts::get)
                .toList();
        return Optional.of(new Sets(rows, kept, values));
    }

    private static boolean matches(Matcher matcher) {
        try {
            return matcher.matches();
        } catch (TooManySteps e) {
            return false;
        }
    }

    /// A name that is looked at only so often: a pattern that goes back and forth without end matches nothing.
    private record Bounded(CharSequence name, int[] left) implements CharSequence {
        @Override
        public int length() {
            return name.length();
        }

        @Override
        public char charAt(int index) {
            if (left[0]-- <= 0) {
                throw new TooManySteps();
            }
            return name.charAt(index);
        }

        @Override
        public CharSequence subSequence(int start, int end) {
            return name.subSequence(start, end);
        }
    }

    private static final class TooManySteps extends RuntimeException {
        private static final long serialVersionUID = 1;
    }

    private static Resolution rows(Given given, Sets sets, List<Field> made, List<Field> others) {
        List<Computed> typed = new ArrayList<>();
        List<List<Field>> fields = new ArrayList<>();
        for (Map<String, Field> row : sets.rows().values()) {
            List<Field> set = new ArrayList<>();
            for (Field value : made) {
                Field there = row.get(value.name());
                if (there != null && there.type().equals(value.type())) {
                    set.add(there);
                    continue;
                }
                Field cell = given.helper("value_" + typed.size(), value.type());
                typed.add(new Computed(
                        cell,
                        there == null
                                ? Formula.missing(value.type())
                                : Readings.as(there.value(), value.type(), "").orElseThrow()));
                set.add(cell);
            }
            fields.add(set);
        }
        boolean keep = given.get(MISSING).equals("keep");
        Field number = given.helper("set", Type.TEXT);
        Relation rows = new Relation.Unpivot(
                given.computed(typed),
                fields,
                IntStream.range(0, fields.size()).mapToObj(String::valueOf).toList(),
                number,
                made,
                keep);
        List<List<String>> keys = List.copyOf(sets.rows().keySet());
        List<Computed> parts = new ArrayList<>();
        for (int part = 0; part < sets.parts().size(); part++) {
            List<Expr.Branch> branches = new ArrayList<>();
            for (int set = 0; set < keys.size(); set++) {
                branches.add(new Expr.Branch(
                        Formula.call("=", number.value(), Expr.Literal.text(String.valueOf(set))),
                        Expr.Literal.text(keys.get(set).get(part))));
            }
            parts.add(new Computed(
                    given.field(sets.parts().get(part), Type.TEXT),
                    new Expr.Case(branches, Formula.missing(Type.TEXT), Type.TEXT)));
        }
        List<Field> shown = new ArrayList<>(others);
        parts.forEach(p -> shown.add(p.made()));
        shown.addAll(made);
        Expr none = Formula.all(given.get(COLUMNS).stream()
                .map(c -> Formula.isMissing(c.value()))
                .toList());
        return new Resolution.Done(
                new Relation.Pick(new Relation.Compute(rows, parts), new Shape(shown)),
                keep
                        ? List.of()
                        : List.of(new Report("vanished", new Relation.Keep(given.before(), none), "rows that vanish")));
    }
}
