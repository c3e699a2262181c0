package fixshelf.source;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.DuckSession;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Outcome;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// Delimited text means one thing, whichever reader reads it: what the engine reads by itself is what is read record by
/// record, and files that could be read in two ways are never left to the engine.
class OneMeaningTest {
    private static final int FILES = Integer.getInteger("files.count", 1_000);
    private static final long SEED = Long.getLong("files.seed", 11);

    @TempDir
    Path folder;

    private static final List<String> PIECES = List.of(
            "a",
            "b c",
            "",
            " ",
            "é",
            "😀",
            "\uFFFD",
            "\"x\"",
            "\"\"",
            "\"a,b\"",
            "\"a\"\"b\"",
            "\"a\nb\"",
            "\"a\r\nb\"",
            "\"a\rb\"",
            " \"x\"",
            "\"x\" ",
            "a\"b",
            "'",
            "\\",
            "\\N",
            "NULL",
            "\u0001",
            "\t",
            "\u00A0",
            "\u2028",
            "a\rb",
            "ÿ",
            "\u000B",
            "0");

    /// A file whose records are mostly as long as they should be, with line ends that are mostly the same.
    private static String file(Random random) {
        int width = 1 + random.nextInt(4);
        String end = random.nextBoolean() ? "\n" : random.nextInt(4) == 0 ? "\r" : "\r\n";
        int odd = random.nextInt(3);
        StringBuilder out = new StringBuilder(random.nextInt(12) == 0 ? "\uFEFF" : "");
        for (int r = 0; r < 2 + random.nextInt(6); r++) {
            if (odd == 2 && random.nextInt(8) == 0) {
                out.append(end);
            }
            int fields = odd == 2 && random.nextInt(10) == 0 ? 1 + random.nextInt(5) : width;
            for (int f = 0; f < fields; f++) {
                int known = odd == 0 ? 11 : PIECES.size();
                out.append(f == 0 ? "" : ",").append(r == 0 && odd == 0 ? "h" + f : PIECES.get(random.nextInt(known)));
            }
            boolean last = random.nextInt(30) == 0;
            out.append(last ? "" : odd == 2 && random.nextInt(10) == 0 ? "\n" : end);
        }
        return out.toString();
    }

    @Test
    void whatTheEngineReadsIsWhatIsReadRecordByRecord() throws Exception {
        readBothWays(FILES, SEED);
    }

    @Tag("proof")
    @Test
    void manyFilesAreReadTheSame() throws Exception {
        readBothWays(5 * FILES, SEED + 1);
    }

    private void readBothWays(int count, long seed) throws Exception {
        Random random = new Random(seed);
        int plain = 0;
        int split = 0;
        try (DuckSession session = DuckSession.open(List.of(), Optional.of(folder))) {
            for (int i = 0; i < count; i++) {
                String text = file(random);
                Path file = Files.writeString(folder.resolve("f.csv"), text);
                List<String> words = random.nextInt(3) == 0 ? List.of() : List.of("", "NULL");
                ReadOptions options = ReadOptions.of("f.csv")
                        .withShape(",", "\"", "utf-8", random.nextInt(4) > 0)
                        .withNullWords(words);
                Outcome<SourceFile> opened = SourceFile.open(file, options);
                if (!opened.isPresent()) {
                    continue;
                }
                boolean isPlain = opened.get().isPlain(Long.MAX_VALUE);
                Optional<Boolean> halves =
                        PlainScan.inHalves(file, options, opened.get().columns().size());
                assertThat(halves.orElse(isPlain))
                        .as(text.replace("\n", "¶").replace("\r", "←"))
                        .isEqualTo(isPlain);
                split += halves.isPresent() ? 1 : 0;
                if (!isPlain) {
                    continue;
                }
                plain++;
                CarefulRows careful =
                        CarefulRows.read(opened.get(), session, "t").get();
                assertThat(session.query("SELECT * FROM " + opened.get().relation())
                                .rows())
                        .as(text.replace("\n", "¶").replace("\r", "←"))
                        .isEqualTo(session.query("SELECT * FROM t").rows());
                assertThat(careful.badCount()).as(text).isZero();
            }
        }
        assertThat(split).as("files in two halves").isGreaterThan(count / 10);
        assertThat(plain).as("files that the engine reads").isBetween(count / 10, count * 9 / 10);
    }

    /// A shape of file, what its rows are, and how many do not fit.
    record Shape(String text, List<String> columns, List<List<String>> rows, int bad) {}

    private static Shape shape(String text, String columns, int bad, String... rows) {
        List<List<String>> all = new ArrayList<>();
        for (String row : rows) {
            all.add(Stream.of(row.split("\\|", -1))
                    .map(c -> c.equals("∅") ? null : c)
                    .toList());
        }
        return new Shape(text, List.of(columns.split("\\|")), all, bad);
    }

    static Stream<Shape> shapes() {
        return Stream.of(
                shape("a,b\n1, \"2\"\n", "a|b", 0, "1| \"2\""),
                shape("a,b\n1,\"2\" \n", "a|b", 1),
                shape("a,b\n1,2,\n3,4\n", "a|b", 1, "3|4"),
                shape("\n\na,b\n1,2\n", "a|b", 0, "1|2"),
                shape("a,b\n\n1,2\n\n3,4\n\n", "a|b", 0, "1|2", "3|4"),
                shape("a\n1\n\n2\n\n\n", "a", 0, "1", "∅", "2"),
                shape("a,b\n1,\"x\r\ny\"\n", "a|b", 0, "1|x\r\ny"),
                shape("a,b\r\n1,\"x\ny\"\r\n", "a|b", 0, "1|x\ny"),
                shape("a,b\n1,\"x\ry\"\n", "a|b", 0, "1|x\ry"),
                shape("a,b\r1,2\r3,4\r", "a|b", 0, "1|2", "3|4"),
                shape("id,\"a\nb\"\r\n0,x\r\n", "id|a\nb", 0, "0|x"),
                shape("a,b\n\uFFFD,2\n", "a|b", 0, "\uFFFD|2"),
                shape("a,b\n\u0001,2\n", "a|b", 0, "\u0001|2"),
                shape("a,b\n\"\",\n", "a|b", 0, "|∅"),
                shape("\uFEFFa,b\n1,2", "a|b", 0, "1|2"),
                shape("a,b\n1,x\"y\n", "a|b", 0, "1|x\"y"),
                shape("a,b\n1,2\n3\n4,5\n", "a|b", 1, "1|2", "4|5"));
    }

    @ParameterizedTest
    @MethodSource("shapes")
    void everyShapeHasItsRows(Shape shape) throws Exception {
        Path file = Files.writeString(folder.resolve("shape.csv"), shape.text());
        rowsAre(shape, file, ReadOptions.of("shape.csv"));
    }

    /// The same rows further down, after one that does not fit, and in encodings that the engine does not know.
    @ParameterizedTest
    @MethodSource("shapes")
    void theSameInOtherEncodings(Shape shape) throws Exception {
        Path file = folder.resolve("shape.csv");
        for (String encoding : List.of("utf-16le", "utf-16be")) {
            Files.write(file, shape.text().getBytes(encoding));
            rowsAre(shape, file, ReadOptions.of("shape.csv").withShape(",", "\"", encoding, true));
        }
    }

    private void rowsAre(Shape shape, Path file, ReadOptions options) {
        SourceFile source = SourceFile.open(file, options).get();
        try (DuckSession session = DuckSession.open(List.of(file), Optional.empty())) {
            boolean plain = source.isPlain(Long.MAX_VALUE);
            CarefulRows careful = CarefulRows.read(source, session, "t").get();
            String relation = plain ? source.relation() : "t";
            assertThat(source.columns().stream().map(c -> c.name())).containsExactlyElementsOf(shape.columns());
            assertThat(session.query("SELECT * FROM " + relation).rows().toString())
                    .isEqualTo(shape.rows().toString());
            assertThat(careful.badCount()).isEqualTo(shape.bad());
        }
    }

    @Test
    void encodingsAreFoundAndNamed() throws Exception {
        record Case(byte[] bytes, String encoding) {}
        String text = "name,place\nZoë,Brindle – Valley\nAnn,Upper Sallow\n";
        for (Case c : List.of(
                new Case(text.getBytes(StandardCharsets.UTF_8), "utf-8"),
                new Case(text.getBytes("windows-1252"), "windows-1252"),
                new Case(text.getBytes(StandardCharsets.UTF_16LE), "utf-16le"),
                new Case(text.getBytes(StandardCharsets.UTF_16BE), "utf-16be"),
                new Case(text.getBytes(StandardCharsets.UTF_16), "utf-16"))) {
            Path file = Files.write(folder.resolve("e.csv"), c.bytes());
            ReadOptions found = DelimitedShape.detect(file, "e.csv", List.of(""));
            assertThat(found.encoding()).isEqualTo(c.encoding());
            try (DuckSession session = DuckSession.open(List.of(file), Optional.empty())) {
                CarefulRows.read(SourceFile.open(file, found).get(), session, "t");
                assertThat(session.query("SELECT * FROM t").rows().toString())
                        .isEqualTo("[[Zoë, Brindle – Valley], [Ann, Upper Sallow]]");
            }
        }
    }

    @Test
    void whatIsNoDelimitedTextIsNamed() throws Exception {
        record Case(byte[] bytes, String said) {}
        for (Case c : List.of(
                new Case(new byte[] {0x1F, (byte) 0x8B, 8, 0}, "gzip"),
                new Case("PK\u0003\u0004rest".getBytes(StandardCharsets.ISO_8859_1), "workbook"),
                new Case("PAR1....".getBytes(StandardCharsets.US_ASCII), "Parquet"),
                new Case("%PDF-1.7".getBytes(StandardCharsets.US_ASCII), "PDF"))) {
            Path file = Files.write(folder.resolve("k.csv"), c.bytes());
            assertThat(SourceFile.open(file, ReadOptions.of("k.csv"))
                            .problems()
                            .getFirst()
                            .what())
                    .contains(c.said());
        }
        assertThat(SourceFile.open(folder, ReadOptions.of("x"))
                        .problems()
                        .getFirst()
                        .what())
                .contains("is a folder");
        Path link = Files.createSymbolicLink(folder.resolve("link.csv"), folder.resolve("gone.csv"));
        assertThat(SourceFile.open(link, ReadOptions.of("x"))
                        .problems()
                        .getFirst()
                        .what())
                .contains("is a link");
    }
}
