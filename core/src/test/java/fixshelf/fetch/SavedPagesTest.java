package fixshelf.fetch;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.plan.ReadOptions;
import fixshelf.plan.ReadOptions.Form;
import fixshelf.problem.Outcome;
import fixshelf.source.SourceFile;
import fixshelf.work.ReadRows;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/// Saved pages that stand for those of the web, in cases of loaders.
class SavedPagesTest {
    @TempDir
    Path shelf;

    @Test
    void severalReadOneAtOnce() throws Exception {
        Path page = Files.writeString(
                shelf.resolve("page.html"),
                "<table><tr><th>a</th><th>b</th></tr>" + "<tr><td>1</td><td>x</td></tr>".repeat(90) + "</table>");
        ReadOptions options =
                ReadOptions.of("https://prices.example/a").withForm(new Form.Web("1", true, 30, Duration.ZERO));
        List<Callable<String>> reading = new ArrayList<>();
        for (int i = 0; i < 12; i++) {
            reading.add(() -> {
                Outcome<SourceFile> file = Copies.openFile(shelf, page, options);
                return file.isPresent()
                        ? String.valueOf(ReadRows.of(file).lines().count())
                        : file.problems().toString();
            });
        }
        List<String> read = new ArrayList<>();
        try (var threads = Executors.newFixedThreadPool(6)) {
            for (Future<String> one : threads.invokeAll(reading)) {
                read.add(one.get());
            }
        }
        assertThat(read).containsOnly("91").hasSize(12);
    }
}
