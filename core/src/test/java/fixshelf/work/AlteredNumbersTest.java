package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.shelf.Shelf;
import java.nio.file.Path;
import java.util.stream.Collectors;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// A line says which values lose a sign, a point or leading zeros by it, and says nothing of those that are no numbers.
class AlteredNumbersTest {
    @TempDir
    Path root;

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "set: [n]@to: regexp_replace(it, '[^0-9]', '') | 12,345;12.5;-3;(7);7-;£12;x-1;a.b;12.50 m | 12.5 125;-3 3;(7) 7;7- 7;12.50 m 1250",
                "set: [n]@to: replace(it, ',', '') | 12,345;1,234.50;12,5;-3,75;1,25;3 | 12,5 125;-3,75 -375;1,25 125",
                "set: [n]@to: ltrim(it, '0') | 007;0;0.5;-07;00751;a07 | 007 7;00751 751",
                "read_as: {n: integer} | 007;12;-5;+8;00 | 007 7",
                "read_as: {n: \"decimal(9,2)\"} | 12.5;-0.25;0012;1e3 | 0012 12.00",
                "set: [n]@to: upper(it) | 007;-3;12.5 | ",
                "add: {m: upper(n)} | 007 | "
            })
    void areReportedValueByValue(String line, String values, String altered) throws Exception {
        Shelf shelf = Jobs.shelf(
                root,
                "n\n"
                        + java.util.Arrays.stream(values.strip().split(";"))
                                .map(v -> '"' + v + '"')
                                .collect(Collectors.joining("\n"))
                        + "\n",
                "job: job\nlines:\n  - read: {file: data/in.csv, null_words: []}\n  - "
                        + line.strip().replace("@", "\n    ") + "\noutputs:\n  - write: out.csv\n");
        String seen = Jobs.reported(shelf, "altered_numbers").stream()
                .map(r -> r.get(1) + " " + r.get(2))
                .collect(Collectors.joining(";"));
        assertThat(seen).isEqualTo(altered == null ? "" : altered.strip());
    }
}
