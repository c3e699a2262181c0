package fixshelf.plan;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.language.checking.Scope;
import fixshelf.language.tree.Parameter;
import fixshelf.operations.Operations;
import fixshelf.plan.Sentences.Part;
import fixshelf.problem.Outcome;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/// Lines of a job read as sentences, and a blank takes what is typed: what it says means the same when it is typed.
class SentencesTest {
    private static final Callables CALLABLES =
            new Callables(Operations.ALL, List.of(), Scope.Fixes.NONE, _ -> Optional.empty());

    private static final List<String> ODD_NAMES = List.of(
            "a",
            "a,b",
            "q\"q",
            "\"",
            "x to y",
            "empty",
            " lead",
            "trail ",
            "every text column",
            "every name",
            "columns like x",
            "all columns",
            "n descending",
            "a; b",
            "a = b",
            "none",
            "from a: b",
            "tab",
            "it's",
            "to",
            "→",
            "a: b",
            "x as y",
            "the usual a",
            "no",
            "007",
            "#",
            "{x}",
            "NULL",
            "\\");

    record Filled(String what, Kind<?> kind, Written written) {}

    private static Map<String, Written> both(String first, Written one, String second, Written other) {
        Map<String, Written> fields = new LinkedHashMap<>();
        fields.put(first, one);
        fields.put(second, other);
        return fields;
    }

    /// Every kind of blank, filled in every way, with every odd name.
    static Stream<Filled> blanks() {
        return ODD_NAMES.stream().flatMap(name -> {
            Written word = Written.word(name);
            Written list = Written.words(List.of(name, "b"));
            Written pairs = Written.pairs(Map.of(name, name));
            Kind<?> text = new ArgumentKind(parameter(Type.TEXT));
            return Stream.of(
                    new Filled("column", ColumnKinds.COLUMN, word),
                    new Filled("columns", ColumnKinds.COLUMNS, list),
                    new Filled("all but", ColumnKinds.COLUMNS, Written.field("all_but", list)),
                    new Filled("like", ColumnKinds.COLUMNS, Written.field("like", word)),
                    new Filled(
                            "some but",
                            ColumnKinds.COLUMNS,
                            new Written.Fields(both("every", Written.word("integer"), "all_but", list))),
                    new Filled(
                            "like but", ColumnKinds.COLUMNS, new Written.Fields(both("like", word, "all_but", list))),
                    new Filled("keys", ColumnKinds.KEYS, list),
                    new Filled(
                            "order",
                            ColumnKinds.ORDER,
                            new Written.Items(List.of(word, Written.field(name, Written.word("descending"))))),
                    new Filled("new name", ColumnKinds.NEW_NAME, word),
                    new Filled("new names", ColumnKinds.NEW_NAMES, list),
                    new Filled("renames", ColumnKinds.RENAMES, pairs),
                    new Filled("text", ValueKinds.TEXT, word),
                    new Filled("texts", ValueKinds.TEXTS, Written.words(List.of(name, ""))),
                    new Filled("pairs", ValueKinds.PAIRS, pairs),
                    new Filled("from", ValueKinds.PAIRS, from(name)),
                    new Filled("matching", ColumnKinds.MATCHING, pairs),
                    new Filled("mappings", ValueKinds.MAPPINGS, Written.field(name, pairs)),
                    new Filled(
                            "rows",
                            ValueKinds.ROWS,
                            new Written.Items(List.of(list, Written.words(List.of("", name))))),
                    new Filled("types", ValueKinds.TYPES, Written.pairs(Map.of(name, "decimal(12,2)"))),
                    new Filled(
                            "new columns",
                            ExpressionKinds.NEW_COLUMNS,
                            Written.pairs(Map.of(name, "a || ';' || \"x = y\"", "b", "c = 'd'"))),
                    new Filled("argument", text, word),
                    new Filled("sql", text, Written.field("sql", Written.word("a || ','"))),
                    new Filled("list", new ArgumentKind(parameter(new Type.ListOf(Type.TEXT))), list),
                    new Filled("mapping", new ArgumentKind(parameter(new Type.Mapping(Type.TEXT, Type.TEXT))), pairs));
        });
    }

    private static Parameter parameter(Type type) {
        return new Parameter("p", type, Optional.empty(), "", false);
    }

    private static Written from(String name) {
        Map<String, String> pairs = new LinkedHashMap<>();
        pairs.put("in", "list");
        pairs.put("from", name);
        pairs.put("to", name);
        return Written.pairs(pairs);
    }

    @Test
    void whatABlankSaysMeansTheSameWhenItIsTyped() {
        List<String> wrong = new ArrayList<>();
        blanks().forEach(b -> {
            String said = b.kind().say(b.written());
            Outcome<Written> typed = b.kind().typed(said);
            if (!typed.value().equals(Optional.of(b.written()))) {
                wrong.add(b.what() + " says " + said + ", typed " + typed);
            }
        });
        assertThat(wrong).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "read | source=visits | Read visits",
                "drop_repeats | keys=visit_no;keep=last;by=recorded_at | Drop rows that repeat visit_no, keeping the last by"
                        + " recorded_at",
                "first_rows | count=1 | Keep the first 1 row",
                "first_rows | count=2 | Keep the first 2 rows",
                "drop_repeats | keep=first | Drop rows that repeat all columns, keeping the first by place in the file",
                "keep_rows | where=a IS NULL | Keep rows where a IS NULL",
                "sort | by=a | Sort by a",
                "carry | columns=a;within=g | Carry a down into missing cells, within g",
                "no_such | columns=a | no such …"
            })
    void aLineReadsAsASentence(String call, String blanks, String sentence) {
        Line line = line(call, blanks);
        assertThat(Sentences.plain(line, CALLABLES)).isEqualTo(sentence);
        for (Part part : Sentences.parts(line, CALLABLES)) {
            if (part instanceof Part.Gap(String text, Blank<?> blank)) {
                assertThat(Sentences.fill(line, blank, text).get()).isEqualTo(line);
            }
        }
    }

    private static Line line(String call, String blanks) {
        Map<String, Written> filled = new LinkedHashMap<>();
        for (String blank : blanks.split(";")) {
            filled.put(blank.split("=")[0], Written.word(blank.split("=")[1]));
        }
        return new Line(call, filled);
    }

    @ParameterizedTest
    @CsvSource({
        "read_file, quote, ab, Here stands one character.",
        "read_file, encoding, ebcdic, ebcdic is not known.",
        "drop_repeats, keep, perhaps, Which of them?",
        "drop, columns, ',', Which columns?",
        "rename, names, a, A new name is given with `to`.",
        "add, columns, a, A new column is given with `=`.",
        "first_rows, count, many, 'Here stands a whole number from 0 to 1,000,000,000.'",
        "sort, by, ',', By which columns?",
        "keep_rows, where, ' ', Which rows?"
    })
    void aBlankSaysWhatItTakes(String call, String blank, String typed, String refusal) {
        Line line = new Line(call, Map.of());
        Outcome<Line> filled = Sentences.fill(
                line, Operations.find(call).orElseThrow().blank(blank).orElseThrow(), typed);
        assertThat(filled.problems()).singleElement().satisfies(p -> {
            assertThat(p.what()).isEqualTo(refusal);
            assertThat(p.todo()).isNotBlank();
        });
    }

    @ParameterizedTest
    @MethodSource("fixshelf.plan.SentencesTest#operations")
    void whatALineBeginsWithCanBeRead(Operation operation) {
        Kind.Choices choices = new Kind.Choices(
                List.of(new fixshelf.type.Column("a, b", Type.TEXT), new fixshelf.type.Column("c", Type.TEXT)),
                List.of("list"),
                List.of("same_name"));
        for (Blank<?> blank : operation.blanks()) {
            Written beginning = blank.kind().beginning(choices).orElseThrow();
            assertThat(blank.kind().typed(blank.kind().say(beginning)).get()).isEqualTo(beginning);
        }
    }

    static Stream<Operation> operations() {
        return Operations.added().stream();
    }
}
