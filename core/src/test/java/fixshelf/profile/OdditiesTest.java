package fixshelf.profile;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// What a column reads as, and what is said of it: each kind of oddity where it is, and not where it is not.
class OdditiesTest {
    /// @param values of a column; `9*x` stands for nine times x
    /// @param reads what it reads as
    /// @param found what is said of it, in order
    record Case(String name, List<String> values, String reads, List<String> found) {
        @Override
        public String toString() {
            return name;
        }
    }

    private static Case at(String name, List<String> values, String reads, String... found) {
        return new Case(name, values, reads, List.of(found));
    }

    static Stream<Case> cases() {
        return Stream.of(
                at("plain words", List.of("lamp", "kettle"), "text"),
                at("nothing", List.of("", ""), "text", "never filled"),
                at("always the same", List.of("5*AQ"), "text", "always the same"),
                at("one row is not always the same", List.of("AQ"), "text"),
                at(
                        "blanks at an end",
                        List.of(" a", "b ", "c\u00A0", "d"),
                        "text",
                        "3 with blanks at an end",
                        "1 with no-break or other rare spaces"),
                at("doubled", List.of("a  b", "a b"), "text", "1 with doubled spaces"),
                at("only blanks", List.of(" ", "\t", "a", "b"), "text", "2 hold nothing but blanks"),
                at(
                        "inner no-break space",
                        List.of("a\u00A0b", "c", "d\u2003e"),
                        "text",
                        "2 with no-break or other rare spaces"),
                at("line breaks", List.of("a\nb", "c\td", "e", "f\u2028g"), "text", "3 with line breaks or tabs"),
                at("invisible", List.of("a\u200Bb", "\uFEFFc", "d\u00ADe", "f"), "text", "3 with invisible characters"),
                at("emoji and accents are seen", List.of("é", "e\u0301f", "😀", "a"), "text"),
                at(
                        "read twice",
                        List.of("RenÃ©e", "Renée", "â‚¬ 5", "a\uFFFDb"),
                        "text",
                        "3 look read in a wrong encoding"),
                at("markup", List.of("a &amp; b", "x < y & z", "<b>c</b>", "&#39;d"), "text", "3 with markup"),
                at("words for missing", List.of("3*?", "N/A", "1", "2"), "integer", "4 are ? or N/A"),
                at("nothing but such words", List.of("3*n/a"), "text", "always the same"),
                at("rulers", List.of("-----", "= = =", "a", "b-c"), "text", "2 are ruled lines, as '-----'"),
                at(
                        "totals",
                        List.of("Total", "5*x", "Subtotal west:", "7*y"),
                        "text",
                        "2 look like totals, as 'Total'"),
                at("totals are a word like any other where they are common", List.of("5*total", "x"), "text"),
                at("whole numbers", List.of("1", "-20", "+3"), "integer"),
                at("decimals", List.of("1.50", "-20", ".5"), "decimal(4,2)"),
                at(
                        "commas",
                        List.of("12,345", "8*1", "1,234.50"),
                        "decimal(7,2)",
                        "2 hold a comma: 12,345 would read as 12"),
                at(
                        "marks",
                        List.of("£5.00", "(12)", "7-", "20*1.25"),
                        "decimal(4,2)",
                        "3 are numbers with marks, as '£5.00'"),
                at(
                        "a comma before the decimals",
                        List.of("9*1.101,50", "12,5"),
                        "decimal(6,2)",
                        "1 holds a comma: 12,5 would read as 12",
                        "9 are numbers with marks, as '1.101,50'"),
                at("units", List.of("3*12 kg", "1kg", "9*4"), "integer", "4 end in kg"),
                at("letters of every kind are no units", List.of("12 a", "3 b", "4 c", "5 d"), "text"),
                at("a text among numbers", List.of("9*4", "soon", "soonish"), "integer", "2 are no number, as 'soon'"),
                at("codes", List.of("007", "12", "13"), "text", "1 begins with a zero, as '007'"),
                at("0.5 is no code", List.of("0.5", "0", "10"), "decimal(3,1)"),
                at(
                        "days of a spreadsheet",
                        List.of("46025", "46346", "45999"),
                        "integer",
                        "look like days of a spreadsheet: 2025-12-08 … 2026-11-20"),
                at("a number outside is none", List.of("46025", "46346", "17"), "integer"),
                at("days", List.of("2026-01-03", "2026-11-20"), "date"),
                at(
                        "two layouts",
                        List.of("4*2026-01-03", "3/1/2026", "13/10/2026"),
                        "date, 2 layouts",
                        "2 laid out as 3/1/2026"),
                at(
                        "both orders",
                        List.of("3*25/12/2026", "12/25/2026", "01/02/2026"),
                        "date, 2 layouts",
                        "1 laid out as 12/25/2026, month first"),
                at("no day", List.of("4*2026-02-28", "2026-02-30"), "date", "1 is no day: '2026-02-30'"),
                at(
                        "numbers among days",
                        List.of("9*2026-02-28", "46025", "46025.75"),
                        "date",
                        "2 count days as a spreadsheet does: 46025 would be 2026-01-03"),
                at(
                        "neither days nor such numbers",
                        List.of("20*2026-02-28", "46025", "12", "soon", "2026-02-30"),
                        "date",
                        "1 counts days as a spreadsheet does: 46025 would be 2026-01-03",
                        "3 are no day, as '2026-02-30'"),
                at(
                        "numbers, days and texts",
                        List.of("3*12", "4", "2*2026-02-28", "soon"),
                        "text",
                        "3 are of another type than most: 4 numbers, 2 days, 1 text"),
                at(
                        "numbers and nearly as many texts",
                        List.of("12", "13", "14", "soon", "late"),
                        "text",
                        "2 are of another type than most: 3 numbers, 2 texts"),
                at("texts with some numbers are texts", List.of("12", "13", "14", "soon", "late", "never"), "text"),
                at(
                        "months in words",
                        List.of("3 March 2026", "14 Oct 2026", "October 5, 2026"),
                        "date, 2 layouts",
                        "1 laid out as October 5, 2026"),
                at("times", List.of("2026-01-03 09:15", "2026-01-03 23:59"), "timestamp"),
                at("true and false", List.of("TRUE", "false", " true"), "boolean", "1 with blanks at an end"),
                at("lists", List.of("a,b", "b,a", "a", ",a,,b"), "list by ,", "1 with empty parts between ,"),
                at(
                        "a comma in a sentence is no list",
                        List.of("the lamp, which is old, hums and smells of burning dust", "b,a"),
                        "text"),
                at(
                        "spellings",
                        List.of("9*Alder Quay", "ALDER QUAY", "Älder  Quay", "Fennick"),
                        "text",
                        "1 with doubled spaces",
                        "2 spell another value otherwise, as ALDER QUAY for Alder Quay"),
                at(
                        "one letter",
                        List.of("12*Fennick", "Fenick", "Fennicks", "Lowmoor"),
                        "text",
                        "2 are one letter from a common value, as Fenick beside Fennick"),
                at(
                        "one letter of short or common words is another word",
                        List.of("12*lamp", "lamb", "4*Fennick", "Fenwick"),
                        "text"),
                at("unlike", List.of("30*AQ-00417", "AQ 00418", "AQ-0041"), "text", "2 unlike AQ-00417"));
    }

    @ParameterizedTest
    @MethodSource("cases")
    void columnsSayWhatTheyAre(Case given) {
        ColumnLook look = look(given.values());
        assertThat(look.findings().stream()
                        .sorted(java.util.Comparator.comparing(Finding::oddity))
                        .map(Finding::sentence))
                .containsExactlyElementsOf(given.found());
        assertThat(look.readsAs()).isEqualTo(given.reads());
    }

    static ColumnLook look(List<String> written) {
        Map<String, Long> counted = new LinkedHashMap<>();
        for (String value : written) {
            int star = value.indexOf('*');
            boolean many = star > 0 && value.substring(0, star).matches("[0-9]+");
            counted.merge(
                    many ? value.substring(star + 1) : value,
                    many ? Long.parseLong(value.substring(0, star)) : 1,
                    Long::sum);
        }
        ColumnTally tally = new ColumnTally(
                0, "x", counted.values().stream().mapToLong(n -> n).sum());
        counted.forEach(tally::add);
        return ColumnFindings.of(tally, List.of(), List.of());
    }

    @org.junit.jupiter.api.Test
    void theOrderOfValuesSaysNothing() {
        for (Case given : cases().toList()) {
            List<String> turned = new ArrayList<>(given.values());
            Collections.reverse(turned);
            ColumnLook forth = look(given.values());
            ColumnLook back = look(turned);
            assertThat(back.readsAs()).as(given.name()).isEqualTo(forth.readsAs());
            assertThat(back.digest()).as(given.name()).isEqualTo(forth.digest());
            assertThat(kinds(back)).as(given.name()).isEqualTo(kinds(forth));
        }
    }

    private static List<String> kinds(ColumnLook look) {
        return look.findings().stream()
                .map(f -> f.oddity() + " " + f.rows())
                .sorted()
                .toList();
    }
}
