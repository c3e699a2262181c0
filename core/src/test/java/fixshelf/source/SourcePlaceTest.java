package fixshelf.source;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.plan.ReadOptions;
import fixshelf.plan.ReadOptions.Form;
import fixshelf.problem.Code;
import fixshelf.profile.ColumnLook;
import fixshelf.profile.DataLook;
import fixshelf.profile.Finding;
import fixshelf.profile.Oddity;
import fixshelf.profile.RowFilter;
import fixshelf.profile.SeenRow;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/// Where rows stand in their sources, and cells that could not be read there.
class SourcePlaceTest {
    @TempDir
    Path folder;

    private SourceFile open(String name, String text, ReadOptions options) throws Exception {
        Files.writeString(folder.resolve(name), text);
        return SourceFile.open(folder.resolve(name), options).get();
    }

    private static String place(SourceFile file, long row) {
        SourcePlace place = SourcePlace.of(file, row).get();
        return place.shown() + ": " + place.raw();
    }

    /// Files with blank lines, line ends of all kinds, quotes over several lines and rows that do
    /// not fit: each row that is read stands where it is said to stand.
    @Test
    void everyRowStandsWhereItIsSaid() throws Exception {
        Random random = new Random(20261127);
        for (int round = 0; round < 60; round++) {
            StringBuilder text = new StringBuilder("a,b\n");
            for (int i = 0; i < 30; i++) {
                text.append(
                        switch (random.nextInt(8)) {
                            case 0 -> "\n";
                            case 1 -> "r" + i + ",\"x\ny\r\nz\"\r\n";
                            case 2 -> "too,many,fields\n";
                            case 3 -> "r" + i + ",\"open\n";
                            case 4 -> "\"r" + i + "\",\"a \"\"b\"\"\"\r";
                            default -> "r" + i + ", plain \n";
                        });
            }
            SourceFile file = open("r" + round + ".csv", text.toString(), ReadOptions.of("r.csv"));
            try (DataLook look = DataLook.open(file, Long.MAX_VALUE).get()) {
                List<SeenRow> rows = look.rows(RowFilter.ALL, 0, 1000).get();
                for (SeenRow row : rows) {
                    String raw = SourcePlace.of(file, row.place()).get().raw();
                    String first = String.valueOf(row.cells().getFirst());
                    assertThat(raw).as(text.toString()).startsWith(raw.startsWith("\"") ? "\"" + first : first);
                }
                assertThat(SourcePlace.of(file, rows.size()).problems())
                        .extracting(p -> p.code())
                        .containsExactly(Code.SOURCE_CHANGED);
            }
        }
    }

    @Test
    void aRowIsFoundInEveryKindOfSource() throws Exception {
        assertThat(place(open("a.csv", "\uFEFFa\n\n1\n\n", ReadOptions.of("a.csv")), 1))
                .isEqualTo("line 3 of a.csv: 1");
        assertThat(place(
                        open("b.csv", "1;\"x\ny\"\n", ReadOptions.of("b.csv").withShape(";", "\"", "utf-8", false)), 0))
                .isEqualTo("line 1 of b.csv: 1;\"x\ny\"");
        assertThat(place(
                        open(
                                "c.json",
                                "[{\"a\": 1},\n{\"a\": 2}]",
                                ReadOptions.of("c.json").withForm(new Form.Json("", ""))),
                        1))
                .isEqualTo("line 2 of c.json: ");
        Files.writeString(folder.resolve("v-1.csv"), "a\n1\n2\n");
        Files.writeString(folder.resolve("v-2.csv"), "a\n\n3\n");
        SourceFile several = SourceFile.open(folder.resolve("v-*.csv"), ReadOptions.of("v-*.csv"))
                .get();
        assertThat(place(several, 1)).isEqualTo("line 3 of v-1.csv: 2");
        assertThat(place(several, 3)).isEqualTo("line 3 of v-2.csv: 3");
    }

    /// An error of a cell is a state of its own: missing, counted, and with its row.
    @Test
    void cellsThatCouldNotBeReadAreCountedByColumn() throws Exception {
        List<String> rows = new ArrayList<>(List.of(Packages.row(2, "B no", "C cost", "D days")));
        rows.add(Packages.row(3, "B 1", "C !#DIV/0!", "D =1"));
        rows.add(Packages.row(4, "A left", "B 2", "C !#REF!"));
        rows.add(Packages.row(6, "B 3", "C =4", "D ~"));
        rows.add(Packages.row(7, "B 4", "C !#N/A"));
        Path path =
                Files.write(folder.resolve("w.xlsx"), Packages.workbook(Map.of("S", String.join("", rows)), Map.of()));
        ReadOptions options = ReadOptions.of("w.xlsx");
        SourceFile file = SourceFile.open(path, options.withForm(new Form.Workbook("", "B2:D7", false, false)))
                .get();
        try (DataLook look = DataLook.open(file, Long.MAX_VALUE).get()) {
            List<ColumnLook> columns = look.columns(List.of()).get().columns();
            assertThat(columns).extracting(ColumnLook::errors).containsExactly(0L, 3L, 1L);
            assertThat(columns.get(1).missing())
                    .as("the blank row, and the errors")
                    .isEqualTo(4);
            Finding first = columns.get(1).findings().getFirst();
            assertThat(first.oddity()).isEqualTo(Oddity.ERROR_CELLS);
            assertThat(first.sentence()).isEqualTo("3 could not be read in the source, as C3 #DIV/0!");
            assertThat(first.places()).containsExactly(0L, 1L, 4L);
            assertThat(look.rows(RowFilter.of(first), 0, 10).get())
                    .extracting(r -> r.cells().getFirst())
                    .containsExactly("1", "2", "4");
        }
        assertThat(place(file, 4)).isEqualTo("row 7 of sheet S in w.xlsx: ");
        SourceFile asText = SourceFile.open(path, options.withForm(new Form.Workbook("", "B2:D7", true, false)))
                .get();
        try (DataLook look = DataLook.open(asText, Long.MAX_VALUE).get()) {
            assertThat(look.columns(List.of()).get().columns())
                    .extracting(ColumnLook::errors)
                    .containsOnly(0L);
        }
    }
}
