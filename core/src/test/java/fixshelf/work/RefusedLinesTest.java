package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.problem.Problem;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// What a line cannot mean is said at that line before any row is read, with what to do.
class RefusedLinesTest {
    @TempDir
    Path root;

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "keep_rows: vilage = 'x' | vilage | village",
                "keep_rows: hours | condition | ",
                "add: {hours: a} | There is a column hours already. | another name",
                "add: {b: a}@before: c | There is no column c | Nearest",
                "group: [a]@measures: {a: count_rows()} | a is a key and a measure. | another name",
                "group: [a]@measures: {total_over: count_rows()}@totals: all | total_over would be there twice. | totals_in",
                "count_by: [a]@into: share@share: all | share would be there twice. | name another",
                "count_by: [a]@into: n@totals: all@totals_in: A | A would be there twice. | name another",
                "columns_to_rows: [a, day]@names_in: k@values_in: v | different types | read_as",
                "headings_to_rows: [a, hours]@pattern: (.)@parts: [k] | The name hours is not as the pattern says. | pattern",
                "headings_to_rows: [a]@pattern: (.@parts: [k] | ( | ",
                "headings_to_rows: [a]@pattern: a@parts: [k] | 0 groups, and there are 1 parts | brackets",
                "headings_to_rows: [aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa]@pattern: ((a+)+)+b@parts: [k, l] | is not as the pattern says | pattern",
                "headings_to_rows: [a]@pattern: (.)@parts: [k]@stays: k | k is not one of several parts. | brackets",
                "headings_to_rows: [a, hours]@pattern: (.).*(.)?@parts: [k, village]@stays: k | village already | Choose another",
                "by_mappings: {day: {x: y}} | day is date, and a mapping is of texts. | text before",
                "by_mappings: {a: {in: no_list, from: k, to: v}} | no_list | ",
                "rename_by_list: list@old: k@new: w | There is no column w in the other table. | Nearest",
                "rename_by_list: list@old: k@new: v | There is no column z | Nearest",
                "rename_by_list: list@old: k@new: t@if_absent: pass_over | would be called | list",
                "rows: {k: integer}@values: [[1], [x]] | Row 2, k: x is no integer. | missing",
                "rows: {k: integer, l: text}@values: [[1]] | Row 1 has 1 value, and there are 2 columns. | one value",
                "rows_of_days: 2026-02-30@count: 2 | no two days | 2026-01-31",
                "rows_of_days: 2026-02-01 | in one way | either",
                "rows_of_days: 2026-02-01@to: 2026-01-01 | before the first | 9999",
                "make_sure_total: {n: count_rows()} | one thing | as_in",
                "make_sure_total: {n: count_rows()}@is: many | many is no integer | that type",
                "make_sure_total: {n: max(a)}@as_in: list | There is no column a in the other table. | Nearest",
                "make_sure_total: {n: max(day)}@as_in: dated | n is date here, and text there. | read_as",
                "join: list@matching: {day: k} | day is date, and k is text. | read_as",
                "put_under: list | no column in common | ",
                "put_under: dated | day is date here, and text there. | read_as",
                "rows_to_columns: a@names_from: village@keys: [a]@value: hours | names_from is said twice | Leave one",
                "tidy: [a]@columns: [village] | columns is said twice | Leave one",
                "rows_to_columns: village@keys: [a] | One measure or one value | value: x",
                "rows_to_columns: village@keys: [a]@value: hours@measure: {n: count_rows()} | One measure or one value | measure",
                "rows_to_columns: village@keys: [a]@value: hours@absent: none | none is no integer | absent",
                "rows_to_columns: hours@keys: [a]@value: day | names are texts | text before",
                "name_columns: {}@by: nothing | There is no fix nothing | ",
                "number_rows: no@from: -1 | from | ",
                "read_as: {a: date}@layout: zz/yy | A layout has no zz. | dd/MM/yyyy",
                "read_as: {a: date}@layout: \"'\" | not closed | dd/MM/yyyy",
                "number_rows: \"x\\0y\" | U+0000 | Choose another name"
            })
    void isSaidAtThatLine(String line, String what, String todo) throws IOException {
        Jobs.shelf(
                root,
                "a,village,hours,day,aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa\nx,y,1,2026-01-01,z\n",
                "job: job\nlines:\n  - read: {file: data/in.csv}\n");
        Files.writeString(root.resolve("data/list.csv"), "k,v,t\na,b,p\nA,b,q\nz,c,r\n");
        Files.writeString(root.resolve("datasets/list.yaml"), "dataset: list\nread: data/list.csv\n");
        Files.writeString(root.resolve("data/dated.csv"), "day\nx\n");
        Files.writeString(root.resolve("datasets/dated.yaml"), "dataset: dated\nread: data/dated.csv\n");
        Files.writeString(
                root.resolve("jobs/job.yaml"),
                "job: job\nlines:\n  - read: {file: data/in.csv}\n  - read_as: {day: date, hours: integer}\n  - "
                        + line.strip().replace("@", "\n    ") + "\noutputs:\n  - write: out.csv\n");
        Shelf shelf = ShelfReader.read(root).get();
        JobPage job = shelf.job("job").orElseThrow();
        Problem first = job.problems().isEmpty()
                ? PlannedJob.plan(shelf, job, Map.of()).problems().getFirst()
                : job.problems().getFirst();
        assertThat(first.what()).contains(what.strip());
        assertThat(first.todo()).contains(todo == null ? "" : todo.strip()).isNotBlank();
        assertThat(first.where().position().line()).isGreaterThanOrEqualTo(5);
    }

    /// What only the data tells stops a run before anything is written, and says how many rows it is about.
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "bring_in: [w]@from: many@matching: {a: k} | Line 2 would make 42 rows of 2: | most: 21",
                "join: many@matching: {a: k} | Line 2 would make 42 rows of 2: | most: 21",
                "bring_in: [w]@from: many@matching: {a: k}@most: 21 | | ",
                "bring_in: [w]@from: many@matching: {a: k}@several: first | | ",
                "rows_to_columns: n@keys: [a]@value: v | 2 rows break line 2: x, p, 1; x, p, 2. | before it. Nothing",
                "rows_to_columns: n@keys: [a]@measure: {v: min(v)} | | ",
                "rows_to_columns: n@keys: [a, v]@value: v | | "
            })
    void isSaidBeforeARowIsMade(String line, String what, String todo) throws IOException {
        Shelf shelf = Jobs.shelf(
                root,
                "a,n,v\nx,p,1\nx,p,2\n",
                "job: job\nlines:\n  - read: {file: data/in.csv}\n  - "
                        + line.strip().replace("@", "\n    ") + "\noutputs:\n  - write: out.csv\n");
        Files.writeString(root.resolve("data/many.csv"), "k,w\n" + "x,1\n".repeat(21));
        Files.writeString(root.resolve("datasets/many.yaml"), "dataset: many\nread: data/many.csv\n");
        List<Problem> problems = Jobs.run(ShelfReader.read(root).get()).problems();
        assertThat(problems).hasSize(what == null ? 0 : 1);
        problems.forEach(p -> {
            assertThat(p.what()).contains(what.strip());
            assertThat(p.todo()).contains(todo.strip());
        });
        assertThat(Files.exists(root.resolve("out.csv"))).isEqualTo(what == null);
        assertThat(shelf.problems()).isEmpty();
    }

    /// A problem points at the words themselves, however YAML writes them; a line that only misses what an earlier one
    /// would give says so once.
    @ParameterizedTest
    @CsvSource(
            delimiter = '¦',
            quoteCharacter = '`',
            value = {
                "add: {good: a || c, bad: uper(c)} ¦ 5:30 uper",
                "add:@  good: a || c@  bad: |-@    upper(a) ||@      nosuch || c ¦ 9:11 nosuch",
                "add: {bad: 'a || ''x'' || nosuch'} ¦ 5:31 nosuch",
                "add: {bad: \"a || \\\"no such\\\"\"} ¦ 5:23 no such",
                "keep_rows: c = 'x' AND cc = 'y' ¦ 5:28 cc",
                "sort: [a, {nosuch: descending}, none] ¦ 5:16 nosuch; 5:37 none",
                "rename: {a: b, nosuch: d} ¦ 5:20 nosuch",
                "read_as: {a: date, c: dat} ¦ 5:27 dat",
                "group: [a]@measures: {n: count_rows(), m: summ(c)} ¦ 6:36 summ(c)",
                "keep_rows: regexp_like(a, '[') ¦ 5:31 '['",
                "set: [a]@to: it || 'x' || ¦ 6:19 ||",
                "add: {bad: nosuch, again: nosuch} ¦ 5:16 nosuch; 5:31 nosuch",
                "add: {new: nosuch}@name: x@^- sort: [new]@^- choose: [new, a] ¦ 5:16 nosuch; 7:12 waits new; 8:14 waits new",
                "add: {new: nosuch}@^- add: {newer: new || a}@^- sort: [newer, none] ¦ 5:16 nosuch; 6:18 waits new; 7:19 none; 7:12 waits newer",
                "bring_in: [v]@from: nowhere@matching: {a: k}@^- sort: [v] ¦ 6:11 nowhere; 8:12 waits v",
                "add: {w: nosuch}@^- join: first@matching: {a: w}@prefix: x_ ¦ 5:14 nosuch; 7:19 w",
                "no_such_fix: [a]@^- sort: [anything] ¦ 5:5 no_such_fix: [a]; 6:12 waits anything"
            })
    void isSaidOfTheWordsThemselves(String lines, String places) throws IOException {
        Shelf shelf = Jobs.shelf(
                root,
                "a,c\nx,y\n",
                "job: job\nlines:\n  - read: {file: data/in.csv}\n    name: first\n  - "
                        + lines.strip().replace("@^", "\n  ").replace("@", "\n    ") + "\n");
        String found = PlannedJob.draft(shelf, shelf.job("job").orElseThrow(), Map.of()).problems().stream()
                .map(p ->
                        p.where().position().line() + ":" + p.where().position().column()
                                + (p.what().contains(" waits for line ") ? " waits " : " ") + p.words())
                .collect(Collectors.joining("; "));
        assertThat(found).isEqualTo(places.strip());
    }
}
