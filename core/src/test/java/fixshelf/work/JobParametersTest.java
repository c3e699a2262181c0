package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.problem.Outcome;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// Parameters of a job and values of the environment in the blanks of its lines.
class JobParametersTest {
    @TempDir
    Path root;

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                // The line, what is set for this run, and what comes out, or why nothing does.
                "first_rows: '{sample}' ; ; b,4 / a,3",
                "first_rows: '{sample}' ; sample=1 ; b,4",
                "first_rows: '{sample}' ; sample=many ; Here stands a whole number from 0 to 1,000,000,000.",
                "sort: ['{by}'] ; ; b,1 / a,2 / a,3 / b,4",
                "sort: ['{by}', n] ; by=k ; a,2 / a,3 / b,1 / b,4",
                "sort: [{'n': '{way}'}] ; way=descending ; b,4 / a,3 / a,2 / b,1",
                "keep_rows: k = wanted ; wanted=a ; a,3 / a,2",
                // In an expression a parameter is a bare name, and names that nobody knows stay as they are.
                "set: k@@to: k || '{by}' ; ; to: This writes {by}, and braces are ordinary signs in an expression.",
                "set: k@@to: '{by}' ; ; to: This writes {by}, and braces are ordinary signs in an expression.",
                "set: k@@to: '{sample}' ; ; to: `{` is not expected here.",
                "keep_rows: '{by} = 1' ; ; This writes {by}, and braces are ordinary signs in an expression.",
                "keep_rows: '{by}' ; by=true ; This writes {by}, and braces are ordinary signs in an expression.",
                "add: {m: '{by}'} ; ; This writes {by}, and braces are ordinary signs in an expression.",
                "tidy: k@@unwanted: {sql: '{by}'} ; ; unwanted: This writes {by}, and braces are ordinary signs in an expression.",
                "tidy: k@@unwanted: '{by}' ; by=a ; b,4 / ,3 / ,2 / b,1",
                "fill_missing: [k]@@with: '{by}' ; ; b,4 / a,3 / a,2 / b,1",
                "fill_missing: [k]@@with: '{nothing}' ; ; b,4 / a,3 / a,2 / b,1",
                "first_rows: '{nothing}' ; ; Here stands a whole number from 0 to 1,000,000,000.",
                "first_rows: 1 ; sample=1 ; Nothing in this job is called {sample}, so that no value can be set for it."
            })
    void standInItsLines(String line, String set, String given) throws Exception {
        Jobs.shelf(
                root,
                "k,n\nb,4\na,3\na,2\nb,1\n",
                "job: job\nparameters: {by: n, way: ascending, wanted: x}\nlines:\n  - read: {file: data/in.csv}\n  - "
                        + line.strip().replace("@@", "\n    ") + "\noutputs:\n  - write: out.csv\n");
        Files.writeString(
                root.resolve("shelf.yaml"), "shelf: t\nenvironment: dev\nenvironments:\n  dev: {sample: 2}\n");
        Shelf shelf = ShelfReader.read(root).get();
        Map<String, String> values = set == null
                ? Map.of()
                : Arrays.stream(set.strip().split(","))
                        .collect(Collectors.toMap(s -> s.split("=")[0], s -> s.split("=")[1]));
        Outcome<JobRun.Report> run = PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), values)
                .then(p -> JobRun.run(p, JobRun.Watcher.NONE));
        String came = run.isPresent()
                ? Files.readAllLines(root.resolve("out.csv")).stream().skip(1).collect(Collectors.joining(" / "))
                : run.problems().getFirst().what();
        assertThat(came).isEqualTo(given.strip());
    }
}
