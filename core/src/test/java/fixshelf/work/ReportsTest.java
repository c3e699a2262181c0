package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.shelf.Shelf;
import fixshelf.type.Literals;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// What each report of each operation is: its columns, and no others, and its rows.
class ReportsTest {
    @TempDir
    Path root;

    /// @param data the file, with `/` between its lines
    /// @param line the line under test, with `/` between its lines
    /// @param reported the columns of the report, then its rows, with `/` between them
    record Told(String data, String line, String report, String reported) {
        @Override
        public String toString() {
            return report + " of " + line;
        }
    }

    private static final String VISITS = "no,room,n/1,mill,4/2,barn,/2,mill ,30/,quay,x";

    static Stream<Told> reports() {
        return Stream.of(
                new Told("Loans,,/no,item,/1,lamp,x", "heading_row: 1", "names", "was,is_now/Loans,no/column_2,item"),
                new Told("a,b/Loans,/no,item/1,lamp", "heading_row: 2", "above", "a,b/Loans,∅"),
                new Told("Start Day,ok/1,2", "name_columns: snake_case", "names", "was,is_now/Start Day,start_day"),
                new Told(
                        "was,b/1,2",
                        "rename_by_list: names/old: old/new: new/if_absent: pass_over",
                        "names",
                        "was,is_now/was,wanted"),
                new Told(VISITS, "keep_rows: n > '3'", "unknown", "no,room,n/2,barn,∅"),
                new Told(VISITS, "leave_out_rows: n > '3'", "unknown", "no,room,n/2,barn,∅"),
                new Told(VISITS, "drop_repeats: [no]/keep: last", "repeats", "no,room,n/2,barn,∅/2,mill ,30"),
                new Told(
                        "a,b,c/,x,y/,,/1,,3",
                        "align_left: every column/keep: 1",
                        "shifted",
                        "a,b,c,shifted_by/∅,x,y,1"),
                new Told(
                        "a,b,c/,x,y/,,/1,,3",
                        "align_left: every column/keep: 1",
                        "cut",
                        "a,b,c,shifted_by/∅,x,y,1/1,∅,3,0"),
                new Told(
                        "k,x,y/1,2,/2,,",
                        "columns_to_rows: [x, y]/names_in: what/values_in: has",
                        "vanished",
                        "k,x,y/2,∅,∅"),
                new Told(
                        "k,x_1,x_2/1,2,/2,,",
                        "headings_to_rows: [x_1, x_2]/pattern: '(.)_(.)'/parts: [what, nth]",
                        "vanished",
                        "k,x_1,x_2/2,∅,∅"),
                new Told("k,tags/1,a;b/2,", "list_to_rows: tags/separator: ';'", "vanished", "k,tags/2,∅"),
                new Told(
                        VISITS,
                        "by_mapping: [room]/pairs: {mill: m}",
                        "unmatched",
                        "no,room,n/2,barn,∅/2,mill ,30/∅,quay,x"),
                new Told("n,m/3.25,1/007,2", "read_as: {n: 'decimal(4,1)'}", "rounded", "n,m/3.25,1"),
                new Told(
                        "n,m/3.25,1/007,2/-,3",
                        "read_as: {n: 'decimal(4,1)'}",
                        "altered_numbers",
                        "column,was,now/n,007,7.0"),
                new Told("k,v/1,a/2,b", "put_under: more", "differences", "column,is/v,only here/w,only there"),
                new Told("k,v/1,a/1,b", "compare_with: other/keys: [k]", "repeated_here", "k,v/1,a/1,b"),
                new Told("k,v/1,a/1,b", "compare_with: other/keys: [k]", "repeated_there", "k,v"),
                new Told(VISITS, "new_ids: [room]/into: id", "numbers", "room,id/mill,1/barn,2/mill ,3/quay,4"),
                new Told(VISITS, "new_ids: [room]/into: id", "new", "room,id/mill,1/barn,2/mill ,3/quay,4"),
                new Told("a,b/x-y-z,1/x,2", "split_column: a/separator: '-'/into: [p, q]", "more_parts", "a,b/x-y-z,1"),
                new Told(
                        "a,b/x-1,1/x,2",
                        "split_column: a/pattern: '([a-z])-([0-9])'/into: [p, q]",
                        "no_match",
                        "a,b/x,2"),
                new Told(
                        "k,room,v/1,a,3/1,b,4/1,b,5",
                        "rows_to_columns: room/values: [b]/keys: [k]/value: v",
                        "others",
                        "k,room,v/1,a,3"),
                new Told(
                        "k,room,v/1,a,3/1,b,4/1,b,5",
                        "rows_to_columns: room/values: [b]/keys: [k]/value: v",
                        "repeats",
                        "k,room,v/1,b,4/1,b,5"),
                new Told(VISITS, "make_sure: n <> 'x'/only_count: true", "broken", "no,room,n/2,barn,∅/∅,quay,x"),
                new Told(VISITS, "make_sure_filled: [no, n]/only_count: true", "broken", "no,room,n/2,barn,∅/∅,quay,x"),
                new Told(VISITS, "make_sure_unique: [no]/only_count: true", "broken", "no,room,n/2,barn,∅/2,mill ,30"),
                new Told(
                        VISITS,
                        "make_sure_in: rooms/matching: {room: name}/only_count: true",
                        "broken",
                        "no,room,n/2,mill ,30/∅,quay,x"),
                new Told(
                        VISITS,
                        "bring_in: [grade]/from: rooms/matching: {room: name}",
                        "without_match",
                        "room,no,n/mill ,2,30/quay,∅,x"),
                new Told(
                        VISITS,
                        "bring_in: [grade]/from: rooms/matching: {room: name}",
                        "unmatched_keys",
                        "room,rows/mill ,1/quay,1"),
                new Told(
                        VISITS,
                        "bring_in: [grade]/from: rooms/matching: {room: name}",
                        "near_misses",
                        "room,name_there,differ_in,rows/mill ,mill,white space,1"),
                new Told(
                        "room/ MILL/Mi-ll/bárn/Bern",
                        "bring_in: [grade]/from: rooms/matching: {room: name}",
                        "near_misses",
                        "room,name_there,differ_in,rows/ MILL,mill,white space, capitals,1/Mi-ll,mill,capitals, marks,1/"
                                + "bárn,barn,accents,1/Bern,barn,one letter,1"),
                new Told(
                        VISITS,
                        "bring_in: [grade]/from: rooms/matching: {room: name}",
                        "ambiguous",
                        "room,no,n/barn,2,∅"),
                new Told(VISITS, "join: rooms/matching: {room: name}", "unused", "name,grade/lane,D"),
                new Told("a,b/1,x", "leave_out_constant_columns: every column", "too_few", "a,b/1,x"),
                new Told(
                        "k,tags/1,a;b/2,;c",
                        "set_parts: [tags]/separator: ';'/to: \"CASE WHEN it <> 'a' THEN it END\"",
                        "left_out",
                        "k,tags/1,a;b"),
                new Told("a,b/1,x/2,", "read_detected: every text column", "types", "column,type/a,integer/b,text"),
                new Told(
                        "n,m/∅,1/4,2",
                        "fill_with_mean: [n]",
                        "means",
                        "column,when,values,mean/n,before,1,4.0000/n,after,2,4.0000"));
    }

    @ParameterizedTest
    @MethodSource("reports")
    void hasItsColumnsAndRows(Told told) throws Exception {
        boolean typed = told.line().startsWith("fill_with_mean");
        Shelf shelf = Jobs.shelf(
                root,
                told.data().replace('/', '\n').replace("∅", "") + "\n",
                "job: job\nlines:\n  - read: data/in.csv\n"
                        + (typed ? "  - read_as: {n: integer, m: integer}\n" : "")
                        + "  - " + told.line().replace("/", "\n    ") + "\n");
        other("rooms", "name,grade\nmill,A\nbarn,B\nbarn,C\nlane,D\n");
        other("names", "old,new\nwas,wanted\ngone,x\n");
        other("more", "k,w\n3,c\n");
        other("other", "k,v\n1,a\n2,b\n");
        PlannedJob planned = PlannedJob.plan(
                        fixshelf.shelf.ShelfReader.read(root).get(),
                        shelf.job("job").orElseThrow(),
                        Map.of())
                .get();
        int line = typed ? 3 : 2;
        assertThat(String.join("/", rows(planned, line, told.report()))).isEqualTo(told.reported());
    }

    private void other(String name, String text) throws Exception {
        Files.writeString(root.resolve("data/" + name + ".csv"), text);
        Files.writeString(
                root.resolve("datasets/" + name + ".yaml"), "dataset: " + name + "\nread: data/" + name + ".csv\n");
    }

    /// The columns of a report, then its rows.
    private static List<String> rows(PlannedJob planned, int line, String name) {
        var report = planned.report(line, name).orElseThrow();
        try (Preview preview = Preview.open(planned.source()).get()) {
            preview.look(planned).get();
            return Stream.concat(
                            Stream.of(String.join(",", report.relation().shape().names())),
                            preview.rows(planned, report, 0, 100).get().stream().map(r -> r.cells().stream()
                                    .map(c -> c.value() == null ? "∅" : Literals.bare(c.value()))
                                    .collect(Collectors.joining(","))))
                    .toList();
        }
    }

    /// Every report that any operation documents stands in the table above.
    @Test
    void noReportIsLeftOut() {
        List<String> told = reports().map(Told::report).distinct().toList();
        assertThat(fixshelf.operations.Operations.ALL.stream()
                        .flatMap(o -> java.util.regex.Pattern.compile("\\b([a-z_]+):")
                                .matcher(o.about().reports())
                                .results()
                                .map(m -> m.group(1)))
                        .distinct()
                        .filter(r -> !told.contains(r)))
                .isEmpty();
    }
}
