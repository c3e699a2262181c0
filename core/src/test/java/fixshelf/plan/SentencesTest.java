package fixshelf.plan;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.plan.Line.Keep;
import fixshelf.plan.Line.Lost;
import fixshelf.plan.Sentences.Part;
import fixshelf.plan.Sentences.Slot;
import fixshelf.problem.Outcome;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/// Lines of a job read as sentences, and a blank takes what is typed.
class SentencesTest {
    private static final Function<String, Optional<String>> FIXES = name -> switch (name) {
        case "by_rate" -> Optional.of("convert {amount} by {rate}");
        case "tidy" -> Optional.of("tidy up {text}");
        default -> Optional.empty();
    };

    private static final Map<String, String> RATE = Map.of("rate", "1.5");

    record Case(Line line, String sentence) {}

    static Stream<Case> lines() {
        ReadOptions plain = ReadOptions.of("data/a.csv");
        return Stream.of(
                new Case(
                        new Line.ReadFile(plain),
                        "Read data/a.csv as delimited text, separator ,, quote \", encoding utf-8, with a heading; missing is"
                                + " empty"),
                new Case(
                        new Line.ReadFile(
                                plain.withShape('\t', "", "latin-1", false).withNullWords(List.of("", "n/a"))),
                        "Read data/a.csv as delimited text, separator tab, quote none, encoding latin-1, without a heading;"
                                + " missing is empty, n/a"),
                new Case(new Line.ReadDataset("visits"), "Read visits"),
                new Case(apply("tidy", Map.of()), "tidy up item, mender"),
                new Case(apply("by_rate", RATE), "convert item, mender by 1.5"),
                new Case(apply("by_rate", Map.of()), "convert the usual amount by item, mender"),
                new Case(apply("unknown_fix", RATE), "unknown fix in item, mender, rate 1.5"),
                new Case(
                        apply("tidy", Map.of()).withColumns(new Columns.AllBut(List.of("visit_no"))),
                        "tidy up every text column but visit_no"),
                new Case(
                        apply("tidy", Map.of()).withLost(Lost.STOPS),
                        "tidy up item, mender; a lost value stops the run"),
                new Case(
                        new Line.DropRepeats(List.of("visit_no"), Keep.LAST, List.of("recorded_at")),
                        "Drop rows that repeat visit_no, keeping the last by recorded_at"),
                new Case(
                        new Line.DropRepeats(List.of(), Keep.FIRST, List.of()),
                        "Drop rows that repeat all columns, keeping the first by place in the file"),
                new Case(new Line.Choose(List.of("b", "a")), "Keep only b, a"),
                new Case(new Line.Drop(List.of("phone")), "Leave out phone"),
                new Case(new Line.Rename(exchanged()), "Rename a to b, b to a"));
    }

    private static Map<String, String> exchanged() {
        Map<String, String> names = new LinkedHashMap<>();
        names.put("a", "b");
        names.put("b", "a");
        return names;
    }

    private static Line.Apply apply(String fix, Map<String, String> arguments) {
        return new Line.Apply(fix, new Columns.Named(List.of("item", "mender")), arguments);
    }

    @ParameterizedTest
    @MethodSource("lines")
    void aLineReadsAsASentence(Case c) {
        assertThat(Sentences.plain(c.line(), FIXES)).isEqualTo(c.sentence());
    }

    @ParameterizedTest
    @MethodSource("lines")
    void aBlankFilledWithWhatItSaysChangesNothing(Case c) {
        for (Part part : Sentences.parts(c.line(), FIXES)) {
            if (part instanceof Part.Blank(String text, Slot slot, String name)) {
                assertThat(SentenceEdits.fill(c.line(), slot, name, text).get())
                        .as(slot + " " + text)
                        .isEqualTo(c.line());
            }
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "LOST ; stops the run ; tidy up item, mender; a lost value stops the run",
                "LOST ; perhaps ; What happens at a lost value?",
                "COLUMNS ; every text column ; tidy up every text column",
                "COLUMNS ; every text column but a, \"b,c\" ; tidy up every text column but a, b,c",
                "COLUMNS ; '' ; Which columns?",
                "ARGUMENT ; 7 ; tidy up item, mender, keep 7"
            })
    void whatIsTypedIsTakenOrRefused(Slot slot, String typed, String becomes) {
        // The delimiter of the table stands in the sentences, too.
        String wanted = becomes;
        Outcome<Line> filled = SentenceEdits.fill(apply("tidy", Map.of()), slot, "keep", typed);
        String got = filled.isPresent()
                ? Sentences.plain(filled.get(), FIXES)
                : filled.problems().getFirst().what();
        assertThat(got).startsWith(wanted);
    }

    @ParameterizedTest
    @CsvSource({
        "SEPARATOR, ab, A separator is one character.",
        "QUOTE, xx, 'A quote is one character, or none.'",
        "ENCODING, ebcdic, This encoding is not known.",
        "PATH, '', Which file?"
    })
    void aBlankOfAReadingLineSaysWhatItTakes(Slot slot, String typed, String refusal) {
        Line read = new Line.ReadFile(ReadOptions.of("a.csv"));
        assertThat(SentenceEdits.fill(read, slot, "", typed).problems())
                .singleElement()
                .satisfies(p -> {
                    assertThat(p.what()).isEqualTo(refusal);
                    assertThat(p.todo()).isNotBlank();
                });
    }
}
