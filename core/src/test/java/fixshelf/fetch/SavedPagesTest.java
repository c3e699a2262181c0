package fixshelf.fetch;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.plan.ReadOptions;
import fixshelf.plan.ReadOptions.Form;
import fixshelf.work.ReadRows;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.time.Duration;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
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
    void areCopiedOnceForAll() throws Exception {
        Path page = Files.writeString(
                shelf.resolve("page.html"),
                "<table><tr><th>a</th><th>b</th></tr>" + "<tr><td>1</td><td>x</td></tr>".repeat(90) + "</table>");
        ReadOptions options =
                ReadOptions.of("https://prices.example/a").withForm(new Form.Web("1", true, 30, Duration.ZERO));
        // Whoever reads the copy would otherwise find another file in its place while others open it.
        List<Callable<Object>> opening = Collections.nCopies(12, () -> Files.readAttributes(
                        Copies.openFile(shelf, page, options).get().file(), BasicFileAttributes.class)
                .fileKey());
        Set<Object> files = new HashSet<>();
        try (var threads = Executors.newFixedThreadPool(6)) {
            for (Future<Object> one : threads.invokeAll(opening)) {
                files.add(one.get());
            }
        }
        assertThat(files).hasSize(1);
        assertThat(ReadRows.of(Copies.openFile(shelf, page, options)).lines()).hasSize(91);
    }
}
