package fixshelf.source;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.source.RecordReader.Item;
import java.io.IOException;
import java.io.StringReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// Records come out as they were written, each with the line on which it begins, whatever ends the lines.
class RecordReaderTest {
    /// A record as it is written: its fields, whether all stand in quotes, and what ends its line.
    record Written(List<String> fields, boolean quoted, String end) {
        String text() {
            List<String> parts = fields.stream()
                    .map(f -> quoted || needsQuotes(f) ? '"' + f.replace("\"", "\"\"") + '"' : f)
                    .toList();
            return String.join(";", parts) + end;
        }

        private static boolean needsQuotes(String field) {
            return field.isEmpty() || field.matches("(?s).*[;\"\\r\\n].*");
        }
    }

    @Provide
    Arbitrary<List<Written>> records() {
        Arbitrary<String> field =
                Arbitraries.strings().withChars("ab ;\"\r\n,é").ofMaxLength(5);
        Arbitrary<List<String>> fields = field.list().ofMinSize(1).ofMaxSize(3);
        return net.jqwik.api.Combinators.combine(
                        fields, Arbitraries.of(true, false), Arbitraries.of("\n", "\r\n", "\r"))
                .as(Written::new)
                .list()
                .ofMaxSize(6);
    }

    @Property(tries = 500)
    void whatIsWrittenIsReadWithItsLine(@ForAll("records") List<Written> records) throws IOException {
        StringBuilder text = new StringBuilder();
        List<Integer> lines = new ArrayList<>();
        for (Written record : records) {
            // A line feed after the carriage return of the line before is one end, not two.
            boolean joins = !text.isEmpty()
                    && text.charAt(text.length() - 1) == '\r'
                    && record.text().startsWith("\n");
            assertThat(joins).isFalse();
            lines.add(1 + lineEnds(text.toString()));
            text.append(record.text());
        }
        RecordReader reader = new RecordReader(new StringReader(text.toString()), ";", "\"");
        for (int i = 0; i < records.size(); i++) {
            Optional<Item> item = reader.next();
            assertThat(item).as(text.toString()).get().isInstanceOf(Item.Row.class);
            Item.Row row = (Item.Row) item.orElseThrow();
            assertThat(row.fields().stream().map(RecordReader.Field::text))
                    .containsExactlyElementsOf(records.get(i).fields());
            assertThat(row.line())
                    .as(text.toString().replace("\r", "␍").replace("\n", "␊"))
                    .isEqualTo(lines.get(i));
        }
        assertThat(reader.next()).isEmpty();
    }

    private static int lineEnds(String text) {
        return (int) text.replace("\r\n", "\n")
                .chars()
                .filter(c -> c == '\n' || c == '\r')
                .count();
    }

    /// `␊` is a line feed, `␍` a carriage return, `~` stands for a quote.
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "a;b | 1: a,b",
                "a;␊␊b; | 1: a,; 3: b,",
                "~a;b~;c | 1: a;b,c",
                "~a~~b~ | 1: a~b",
                "~a␍b~␍c | 1: a␍b; 3: c",
                "~a␍␊b~␍␊c | 1: a␍␊b; 3: c",
                "~a~b;c␊d | 1! TEXT_AFTER_QUOTE; 2: d",
                "a;~b | 1! OPEN_QUOTE",
                "␍␊␍␊a | 3: a"
            })
    void rowsAndWhatIsNone(String text, String items) throws IOException {
        String plain = text.replace('␊', '\n').replace('␍', '\r').replace('~', '"');
        RecordReader reader = new RecordReader(new StringReader(plain), ";", "\"");
        List<String> found = new ArrayList<>();
        for (Optional<Item> item = reader.next(); item.isPresent(); item = reader.next()) {
            found.add(shown(item.get()));
        }
        assertThat(String.join("; ", found)).isEqualTo(items);
    }

    /// A separator of several characters, and none at all.
    @ParameterizedTest
    @CsvSource(
            delimiterString = " => ",
            value = {
                "|| => a||b|c||~x||y~␊||d => 1: a,b|c,x||y; 2: ,d",
                "|| => a|||b => 1: a,|b",
                "::= => a::b::=c:␊:=:: => 1: a::b,c:; 2: :=::",
                "'' => a;b,c␊~d,e~ => 1: a;b,c; 2: d,e"
            })
    void separatorsAreOfAnyLength(String separator, String text, String items) throws IOException {
        String plain = text.replace('␊', '\n').replace('~', '"');
        RecordReader reader = new RecordReader(new StringReader(plain), separator, "\"");
        List<String> found = new ArrayList<>();
        for (Optional<Item> item = reader.next(); item.isPresent(); item = reader.next()) {
            found.add(shown(item.get()));
        }
        assertThat(String.join("; ", found)).isEqualTo(items);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '\t',
            value = {
                "||	no||item␊1||lamp␊2||",
                "|	no|item␊1|lamp␊2||",
                "::	no::item::at␊1::lamp::12:30␊2::tea:pot::12:45",
                "^	no^item␊1^lamp, brass␊2^tea",
                "~	no~item␊1~lamp, brass␊2~tea",
                "␁	no␁item␊1␁lamp␊2␁tea",
                ",	fe80::1␊fe80::2␊::1",
                ",	12:30␊12:45",
                ",	a,b␊1~x,2~y␊3~x,4~y"
            })
    void separatorsAreSeen(String separator, String text, @TempDir Path folder) throws Exception {
        Path file = Files.writeString(
                folder.resolve("a.txt"), text.replace('␊', '\n').replace('␁', '\u0001') + "\n");
        assertThat(DelimitedShape.detect(file, "a.txt", List.of("")).separator().replace('\u0001', '␁'))
                .isEqualTo(separator);
    }

    private static String shown(Item item) {
        return switch (item) {
            case Item.Row(int line, List<RecordReader.Field> fields) ->
                line + ": "
                        + String.join(
                                        ",",
                                        fields.stream()
                                                .map(RecordReader.Field::text)
                                                .toList())
                                .replace('\n', '␊')
                                .replace('\r', '␍')
                                .replace('"', '~');
            case Item.Broken(int line, RecordReader.Why why, String _) -> line + "! " + why;
        };
    }
}
