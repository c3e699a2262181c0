package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.problem.Problem;
import java.util.Map;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// Calls of loaders in lines of jobs, in the first and below it.
class LoaderLinesTest extends LoaderShelf {
    /// Arguments of a call in a first line are blanks like others: parameters of the job, then
    /// values of the environment.
    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "visits_of: {room: '{where}'} ; ; [[a, 1.50, quay], [b, 2.00, quay]]",
                "visits_of: {room: '{where}'} ; where=mere ; [[c, 7.00, mere]]",
                "visits_of: {room: '{where}', year: '{of}'} ; where=07,of=2025 ; [[d, 8.00, 07]]",
                "visits_of: {room: quay, least: '{least}'} ; least=2 ; [[b, 2.00, quay]]",
                "visits_of: {room: quay, year: '{of}'} ; of=x ; year: x is no integer.",
                "visits_of: {room: '{nobody}'} ; ; room would be read as a value of the shelf: {nobody}.",
                "visits_of: {room: '{where}'} ; where={data} ; room would be read as a value of the shelf: {data}."
            })
    void itsArgumentsAreBlanks(String line, String set, String given) throws Exception {
        write("jobs/job.yaml", "job: job\nparameters: {where: quay, of: 2026, least: 0}\nlines:\n  - " + line + "\n");
        Map<String, String> values = new java.util.HashMap<>();
        for (String one : set == null ? new String[0] : set.split(",")) {
            values.put(one.split("=")[0], one.split("=")[1]);
        }
        var planned = PlannedJob.plan(read(), read().job("job").orElseThrow(), values);
        if (!planned.isPresent()) {
            assertThat(planned.problems().getFirst().what()).isEqualTo(given);
            return;
        }
        try (Preview preview = Preview.open(planned.get().source()).get()) {
            assertThat(preview.grid(planned.get(), 1).get().rows().toString()).isEqualTo(given);
        }
    }

    /// A later line that calls one, or that reads, begins with other rows; those before are there under their name.
    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "- visits_of: {room: mere} ; [[c, 7.00, mere]]",
                "- visits_of: {room: '{where}', year: 2025} ; [[d, 8.00, 07]]",
                "- visits_of: {room: mere}¶  name: mere¶- visits_of: {room: '07', year: 2025}¶- put_under: mere¶- put_under: begin ; [[d, 8.00, 07], [c, 7.00, mere], [a, 1.50, quay], [b, 2.00, quay]]",
                // Each call is a table of its own, also in jobs that are read in between.
                "- put_under: of_mere¶- put_under: of_07¶- visits_of: {room: mere}¶  name: last¶- read: of_07¶- put_under: last¶- put_under: of_mere ; [[d, 8.00, 07], [c, 7.00, mere], [c, 7.00, mere]]",
                "- put_under: of_mere¶- put_under: of_07 ; [[a, 1.50, quay], [b, 2.00, quay], [c, 7.00, mere], [d, 8.00, 07]]",
                "- read: d¶- bring_in: [room]¶  from: begin¶  matching: {no: no}¶  prefix: was_ ; [[b, 2.00, quay, quay]]",
                "- add: {twice: paid * 2}¶  name: doubled¶- read: doubled¶- first_rows: 1 ; [[a, 1.50, quay, 3.00]]",
                "- visits_of: {room: away} ; visits_of cannot be read: There is no file away-2026.csv",
                "- visits_of: {year: 2025} ; visits_of needs room.",
                "- read: {file: data/mere-2026.csv} ; Only the first line reads a file itself.",
                "- read: job ; Jobs read each other in a circle: job → job."
            })
    void aLaterLineBeginsAnew(String lines, String given) throws Exception {
        dataset("load: visits_of\nwith: {room: quay, least: 2}");
        write("jobs/of_mere.yaml", "job: of_mere\nlines:\n  - visits_of: {room: mere}\n");
        write("jobs/of_07.yaml", "job: of_07\nlines:\n  - read: d\n  - visits_of: {room: '07', year: 2025}\n");
        write(
                "jobs/job.yaml",
                "job: job\nparameters: {where: \"07\"}\nlines:\n  - visits_of: {room: quay}\n    name: begin\n  "
                        + lines.replace("¶", "\n  ") + "\noutputs:\n  - write: out.csv\n");
        var planned = PlannedJob.plan(read(), read().job("job").orElseThrow(), Map.of());
        if (!planned.isPresent()) {
            Problem problem = planned.problems().getFirst();
            assertThat(problem.what()).startsWith(given);
            return;
        }
        assertThat(result("job")).isEqualTo(given);
        try (Preview preview = Preview.open(planned.get().source()).get()) {
            assertThat(preview.ledger(planned.get()).get().addsUp()).isTrue();
            // Its first cell is followed through the call to the file.
            int last = planned.get().plan().steps().size();
            CellLife life = CellLives.of(
                            preview,
                            planned.get(),
                            last,
                            1,
                            planned.get().plan().last().fields().getFirst().name())
                    .get();
            String cell = given.substring(2, 3);
            assertThat(life.file())
                    .contains(cell.equals("c") ? "mere-2026" : cell.equals("d") ? "07-2025" : "quay-2026");
            assertThat(life.stages()).allSatisfy(s -> assertThat(s.words()).doesNotContain("_rows"));
            assertThat(life.stages().getFirst().value()).isEqualTo(cell);
            // Of several calls the words are those of the one that gave it.
            String from = life.file().replaceFirst("\\.csv.*", "");
            assertThat(life.stages().stream().filter(s -> s.job().endsWith("_rows") && s.line() == 1))
                    .allSatisfy(s -> assertThat(s.of().orElseThrow().toString()).contains(from));
        }
        JobRun.Report run = JobRun.run(planned.get(), JobRun.Watcher.NONE).get();
        assertThat(run.rows()).isEqualTo(given.split("\\], \\[").length);
    }
}
