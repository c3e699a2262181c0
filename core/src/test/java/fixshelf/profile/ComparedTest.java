package fixshelf.profile;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.plan.ReadOptions;
import fixshelf.source.SourceFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/// Tables held against each other, and a dataset against an earlier look at it.
class ComparedTest {
    @TempDir
    Path folder;

    private SourceFile file(String name, String text) throws IOException {
        Path file = folder.resolve(name);
        Files.writeString(file, text);
        return SourceFile.open(file, ReadOptions.of(name)).get();
    }

    private DataLook look(String name, String text) throws IOException {
        return DataLook.open(file(name, text), Long.MAX_VALUE).get();
    }

    @Test
    void rowsAreComparedByTheirKey() throws IOException {
        SourceFile there = file(
                "b.csv",
                "no,cost,name,day\n1,11.40,Ann ,2026-04-01\n2,5,bo,2026-01-05\n4,9,x,\n5,1,y,\n5,2,y,\n,3,z,\n");
        try (DataLook here =
                look("a.csv", "no,name,cost,day\n1,Ann,11.4,2026-01-04\n2,Bo,,2026-01-05\n3,Cy,7,\n5,y,1,\n,q,1,\n")) {
            RowsCompared compared = RowsCompared.of(here, there, List.of("no")).get();
            assertThat(List.of(compared.both(), compared.onlyHere(), compared.onlyThere()))
                    .containsExactly(2L, 1L, 1L);
            assertThat(compared.keyless()).isEqualTo(2);
            assertThat(compared.repeated()).as("one row here, two there").isEqualTo(3);
            assertThat(compared.byColumn()).isEqualTo(Map.of("name", 2L, "cost", 2L, "day", 1L));
            assertThat(compared.byValue()).isEqualTo(Map.of("name", 2L, "cost", 1L, "day", 1L));
            assertThat(compared.cells().stream()
                            .map(c -> c.key() + " " + c.column() + " " + c.here() + " " + c.there() + " " + c.why()))
                    .containsExactly(
                            "[1] name Ann Ann  blanks at an end",
                            "[2] name Bo bo capitals",
                            "[1] cost 11.4 11.40 the same by value",
                            "[2] cost null 5 ",
                            "[1] day 2026-01-04 2026-04-01 day and month changed places?");
            assertThat(RowsCompared.of(here, there, List.of("nr"))
                            .problems()
                            .getFirst()
                            .sentence())
                    .contains("a.csv has no column nr");
        }
    }

    /// Without a key the first row is held against the first, and what is longer has rows of its own.
    @Test
    void rowsAreComparedByTheirPlace() throws IOException {
        SourceFile there = file("b.csv", "no,name\n1,Ann\n2,Bo\n");
        try (DataLook here = look("a.csv", "name,no\nAnn,1\nBob,2\nCy,3\n")) {
            RowsCompared compared = RowsCompared.of(here, there, List.of()).get();
            assertThat(List.of(compared.both(), compared.onlyHere(), compared.onlyThere(), compared.keyless()))
                    .containsExactly(2L, 1L, 0L, 0L);
            assertThat(compared.lines("a", "b"))
                    .containsExactly(List.of("row", "column", "a", "b", "why"), List.of("2", "name", "Bob", "Bo", ""));
        }
    }

    /// Numbers by the days of another column: their mean, in parts that fit, with empty ones
    /// between; days whose order is in doubt as most of them are.
    @Test
    void aColumnOverTheDaysOfAnother() throws IOException {
        try (DataLook look = look(
                "t.csv",
                "day,cost,what\n13/01/2026,1.00,a\n01/02/2026,£3,a\n14/01/2026,5,\n02/01/2026,x,b\nsoon,9,b\n,9,b\n")) {
            TableLook table = look.columns(List.of()).get();
            Drawing cost = OverTime.of(
                            look, table.columns().get(1), table.columns().get(0))
                    .get();
            assertThat(cost.title()).isEqualTo("cost, mean by day of day (1 row has no day)");
            Drawing what = OverTime.of(
                            look, table.columns().get(2), table.columns().get(0))
                    .get();
            assertThat(what.title()).isEqualTo("what, filled by day of day (1 row has no day)");
            assertThat(List.of(what.from(), what.to())).containsExactly("2026-01-02", "2026-02-01");
            assertThat(what.bars())
                    .hasSize(31)
                    .extracting(Drawing.Bar::label)
                    .contains("2026-01-13: 1 row", "2026-01-14: 0 rows");
            assertThat(OverTime.of(look, table.columns().get(0), table.columns().get(2))
                            .get()
                            .bars())
                    .isEmpty();
        }
        try (DataLook look =
                look("m.csv", "day,cost\n2024-01-31,1\n2024-03-01,\"1,200\"\n2024-03-31,(4)\n2026-12-01,2\n")) {
            TableLook table = look.columns(List.of()).get();
            Drawing drawing = OverTime.of(
                            look, table.columns().get(1), table.columns().get(0))
                    .get();
            assertThat(drawing.title()).isEqualTo("cost, mean by month of day");
            assertThat(drawing.bars()).hasSize(36);
            assertThat(drawing.bars().get(2).label()).isEqualTo("2024-03: 2 rows, mean 598.00");
            assertThat(List.of(drawing.from(), drawing.to())).containsExactly("2024-01", "2026-12");
        }
    }

    @Test
    void columnsAreComparedByTheirNames() throws IOException {
        try (DataLook a = look("a.csv", "no,Cost,day\n1,2.5,x\n");
                DataLook b = look("b.csv", "no,cost,extra\n1,2.50,y\n");
                DataLook c = look("c.csv", "no,cost,extra\nz,2,y\n")) {
            ColumnsCompared compared = ColumnsCompared.look(List.of("a", "b", "c"), List.of(a, b, c))
                    .get();
            assertThat(compared.rows().stream().map(r -> r.name() + ": " + r.difference(compared.tables())))
                    .containsExactly(
                            "no: reads otherwise", "Cost: written otherwise", "day: not in b, c", "extra: not in a");
        }
    }

    @Test
    void anEarlierLookKnowsWhatIsOtherAndHoldsNoValue() throws IOException {
        try (DataLook before = look("a.csv", "no,name,gone\n1,Ann,x\n2,Bo,y\n")) {
            TableLook table = before.columns(List.of()).get();
            assertThat(EarlierLook.last(folder, "a")).isEmpty();
            EarlierLook.keep(folder, "a", table, Instant.parse("2026-11-01T09:00:00Z"));
            assertThat(EarlierLook.last(folder, "a").orElseThrow().differences(table))
                    .isEmpty();
            // Nothing is other: the time of the first look stays.
            EarlierLook.keep(folder, "a", table, Instant.parse("2026-11-02T09:00:00Z"));
        }
        EarlierLook earlier = EarlierLook.last(folder, "a").orElseThrow();
        assertThat(earlier.at()).isEqualTo("2026-11-01T09:00:00Z");
        assertThat(Files.readString(folder.resolve(".fixshelf/looks/a.json"))).doesNotContain("Ann", "Bo");
        try (DataLook after = look("a.csv", "no,name,new\n1,Ann,x\n2,Ben,y\n3,Cy,\n")) {
            assertThat(earlier.differences(after.columns(List.of()).get()))
                    .containsExactly(
                            "rows: 2 → 3",
                            "gone: the column gone",
                            "no: filled 2 → 3, distinct 2 → 3",
                            "name: filled 2 → 3, distinct 2 → 3",
                            "new: the column new");
        }
        try (DataLook same = look("a.csv", "no,name,gone\n2,Bo,y\n1,Ben,x\n")) {
            assertThat(earlier.differences(same.columns(List.of()).get())).containsExactly("name: other values");
        }
    }

    @Test
    void drawingsAreXmlWhateverTheirLabelsHold() throws Exception {
        Drawing drawing = new Drawing(
                "a <b> & \"c\" \u0001",
                List.of(new Drawing.Bar("\uD800 & <", 3, true), new Drawing.Bar("0", 0, false)),
                "<",
                "&");
        for (boolean dark : List.of(true, false)) {
            var document = DocumentBuilderFactory.newInstance()
                    .newDocumentBuilder()
                    .parse(new java.io.ByteArrayInputStream(
                            SvgDrawing.write(drawing, dark).getBytes(java.nio.charset.StandardCharsets.UTF_8)));
            assertThat(document.getElementsByTagName("rect").getLength()).isEqualTo(3);
        }
    }
}
