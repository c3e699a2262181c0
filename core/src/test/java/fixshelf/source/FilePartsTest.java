package fixshelf.source;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.plan.ReadOptions;
import fixshelf.plan.ReadOptions.Form;
import fixshelf.work.ReadRows;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/// The tables that a file holds, to be chosen from. Those of a PDF are in [PdfTest].
class FilePartsTest {
    @TempDir
    Path folder;

    private static List<FileParts.Part> parts(Path file, Form form) {
        return FileParts.of(file, ReadOptions.of(file.toString()).withForm(form))
                .get();
    }

    /// What was left out of a sheet can be read with it: as the block of all that is used.
    @Test
    void sheetsAndTheirNamedTablesAndAllThatIsUsed() throws Exception {
        StringBuilder rows = new StringBuilder(Packages.row(2, "B no", "C cost"));
        for (int i = 3; i < 600; i++) {
            rows.append(Packages.row(i, "B AQ-" + i, "C =" + i));
        }
        rows.append(Packages.row(601, "A total", "C =9", "E far"));
        Map<String, String> sheets = new LinkedHashMap<>();
        sheets.put("Quarter", rows.toString());
        sheets.put("Empty", "");
        Path file = Files.write(folder.resolve("w.xlsx"), Packages.workbook(sheets, Map.of()));
        List<FileParts.Part> parts = parts(file, new Form.Workbook("", "", true, false));
        assertThat(parts)
                .extracting(FileParts.Part::title, FileParts.Part::size)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple(
                                "sheet Quarter", "599 rows of 2 columns; 1 row does not fit"),
                        org.assertj.core.groups.Tuple.tuple(
                                "sheet Quarter, all that is used, A2:E601", "599 rows of 5 columns"),
                        org.assertj.core.groups.Tuple.tuple("sheet Empty", "nothing in it"));
        assertThat(parts.get(0).names()).containsExactly("no", "cost");
        assertThat(parts.get(0).first()).hasSize(FileParts.SHOWN_ROWS).startsWith(List.of("AQ-3", "3"));
        assertThat(parts.get(2).isReadable()).isFalse();
        // What is chosen reads what was shown, and keeps what was said of errors.
        assertThat(parts.get(1).options().form()).contains(new Form.Workbook("Quarter", "A2:E601", true, false));
        assertThat(ReadRows.of(SourceFile.open(file, parts.get(1).options())))
                .startsWith("column_1|no|cost|column_4|column_5\n∅|AQ-3|3|∅|∅\n");
    }

    @Test
    void tablesOfADatabase() throws Exception {
        Path file = folder.resolve("d.sqlite");
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + file);
                Statement statement = connection.createStatement()) {
            statement.execute("CREATE TABLE \"a b\" (n INTEGER, t TEXT)");
            statement.execute("INSERT INTO \"a b\" VALUES (1, NULL), (2, 'x')");
            statement.execute("CREATE VIEW broken AS SELECT not_there FROM \"a b\"");
        }
        List<FileParts.Part> parts = parts(file, new Form.Database("sqlite", "", ""));
        assertThat(parts).extracting(FileParts.Part::title).containsExactly("table a b", "table broken");
        assertThat(parts.getFirst().size()).isEqualTo("2 rows of 2 columns");
        assertThat(ReadRows.of(SourceFile.open(file, parts.getFirst().options())))
                .isEqualTo("n|t\n1|∅\n2|x");
        assertThat(parts.getLast().isReadable()).isFalse();
        assertThat(parts.getLast().size()).contains("cannot be read");
    }

    @Test
    void whatIsOneTableHasNoParts() throws Exception {
        Path file = Files.writeString(folder.resolve("a.csv"), "a\n1\n");
        assertThat(FileParts.hasSeveral(ReadOptions.of("a.csv"))).isFalse();
        assertThat(FileParts.of(file, ReadOptions.of("a.csv")).get()).isEmpty();
        Path broken = Files.writeString(folder.resolve("b.pdf"), "%PDF-1.4 no more");
        assertThat(FileParts.of(broken, ReadOptions.of("b.pdf").withForm(new Form.Pdf("", 0)))
                        .problems())
                .singleElement()
                .satisfies(p -> assertThat(p.what()).contains("cut off or broken"));
    }
}
