package fixshelf.desktop;

import fixshelf.desktop.data.DataPlace;
import fixshelf.desktop.workbench.UserSettings;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.language.pattern.PatternHelp;
import fixshelf.shelf.FixEdits;
import fixshelf.work.Preview;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Objects;
import java.util.concurrent.Callable;
import java.util.concurrent.CompletableFuture;
import javafx.application.Platform;
import javafx.scene.image.PixelReader;
import javafx.scene.image.WritableImage;
import javafx.stage.Stage;
import javax.imageio.ImageIO;
import org.jspecify.annotations.Nullable;

/// Draws every main view of the demo shelf.
final class Shots {
    private final Path shelf;
    private final Path folder;
    private @Nullable Frame frame;

    Shots(Path shelf, Path folder) {
        this.shelf = shelf;
        this.folder = folder;
    }

    void draw() throws Exception {
        Files.createDirectories(folder);
        Path settings = start();
        // The shelf is one of lately, whose cases were tried.
        onScreen(() -> frame().open(shelf));
        settle();
        onScreen(() -> frame().welcome(java.util.List.of()));
        save("welcome");
        onScreen(() -> frame().open(shelf));
        settle();
        onScreen(() -> frame().shelfPlace().show("squeeze_spaces"));
        save("shelf");
        onScreen(() -> {
            frame().shelfPlace().write();
        });
        settle();
        onScreen(this::breakAFix);
        save("writing-a-fix");
        onScreen(() -> frame().shelfPlace().writing().evidence().turnHelper());
        onScreen(() ->
                frame().shelfPlace().writing().evidence().helper().ask("", PatternHelp.Inside.LETTERS, " Sallow"));
        save("pattern-helper");
        onScreen(() -> frame().shelfPlace().writing().evidence().turnHelper());
        onScreen(() -> frame().workbench().orElseThrow().undo(page()));
        data();
        onScreen(() -> {
            frame().enter(frame().jobsPlace());
            frame().jobsPlace().show(shelf.resolve("jobs/visits_clean.yaml"));
        });
        settle();
        onScreen(() -> frame().jobsPlace().choose(5, Preview.View.CHANGED));
        settle();
        onScreen(() -> frame().jobsPlace().showLife("parts_cost"));
        save("jobs-cell-life");
        job("visits_with_rooms", 7, "");
        settle();
        onScreen(() -> frame().jobsPlace().showLedger());
        save("jobs-where-rows-went");
        job("visits_with_rooms", 5, "near_misses");
        save("jobs-join");
        job("hours_by_month", 2, "vanished");
        save("jobs-columns-to-rows");
        aCheckThatFails();
        save("jobs-check");
        onScreen(() -> {
            frame().enter(frame().shelfPlace());
            frame().shelfPlace().show("labels_from_below");
            frame().shelfPlace().write();
        });
        settle();
        onScreen(() -> frame().shelfPlace().table().chosen(2));
        save("table-fix");
        onScreen(() -> frame().enter(frame().jobsPlace()));
        onScreen(() -> frame().workbench().orElseThrow().undo(shelf.resolve("jobs/hours_by_month.yaml")));
        onScreen(() -> frame().enter(frame().languagesPlace()));
        save("languages");
        onScreen(() -> frame().languagesPlace().showWholeShelf());
        save("languages-whole-shelf");
        onScreen(() -> {
            new UserSettings(settings).put("sheet", "dark");
            frame().scene().getAccelerators().forEach((keys, run) -> {
                if (keys.getName().contains("L")) {
                    run.run();
                }
            });
            frame().enter(frame().shelfPlace());
            frame().shelfPlace().show("menders_of");
            frame().shelfPlace().write();
        });
        settle();
        onScreen(() -> frame().shelfPlace().table().chosen(3));
        save("loader");
    }

    /// A job with a line chosen, and one of its reports shown.
    private void job(String name, int line, String report) throws Exception {
        onScreen(() -> frame().jobsPlace().show(shelf.resolve("jobs/" + name + ".yaml")));
        settle();
        onScreen(() -> frame().jobsPlace().choose(line, report));
    }

    /// A job whose check is broken by some rows.
    private void aCheckThatFails() throws Exception {
        Path page = shelf.resolve("jobs/hours_by_month.yaml");
        Workbench workbench = frame().workbench().orElseThrow();
        onScreen(() -> workbench.edit(
                page,
                workbench.job(page).orElseThrow().source().text().replace("BETWEEN 0 AND 80", "BETWEEN 5 AND 12")));
        job("hours_by_month", 4, "broken");
    }

    /// A dataset looked at, counted, and compared.
    private void data() throws Exception {
        onScreen(() -> frame().enter(frame().dataPlace()));
        onScreen(() -> frame().dataPlace().show("menders"));
        settle();
        onScreen(() -> {
            frame().dataPlace().turn(DataPlace.View.COMPARE);
            frame().dataPlace().comparePage().with("menders_last_year");
        });
        settle();
        save("data-compare");
        onScreen(() -> {
            frame().dataPlace().turn(DataPlace.View.COLUMNS);
            frame().dataPlace().show("visits_thornmere");
        });
        settle();
        onScreen(() -> frame().dataPlace().chooseRemedies());
        save("data-columns");
        onScreen(() -> frame().dataPlace().turn(DataPlace.View.COUNTS));
        onScreen(() -> frame().dataPlace().countsPage().count(java.util.List.of(5, 8)));
        save("data-counts");
        onScreen(() -> frame().dataPlace().showOddest());
        save("data-rows");
        onScreen(() -> {
            frame().dataPlace().turn(DataPlace.View.STAND_IN);
            frame().dataPlace().standInPage().make("out/stand_in");
        });
        settle();
        save("data-stand-in");
        onScreen(() -> {
            frame().dataPlace().turn(DataPlace.View.COLUMNS);
            frame().dataPlace().bring(shelf.resolve("data/quarterly-report.pdf"));
        });
        save("data-parts");
    }

    /// Opens the shelf and goes through its places once, without a picture.
    void warmUp() throws Exception {
        start();
        onScreen(() -> frame().open(shelf));
        settle();
        onScreen(() -> frame().enter(frame().jobsPlace()));
        settle();
        onScreen(() -> frame().scene().snapshot(null));
    }

    private Path start() throws Exception {
        Path settings = shelf.resolve(".fixshelf/window.properties");
        CompletableFuture<Void> started = new CompletableFuture<>();
        Platform.startup(() -> {
            Platform.setImplicitExit(false);
            Stage stage = new Stage();
            frame = new Frame(stage, new UserSettings(settings));
            stage.show();
            started.complete(null);
        });
        started.get();
        return settings;
    }

    private Path page() {
        return shelf.resolve("fixes/text/squeeze_spaces.fix.md");
    }

    private void breakAFix() {
        Workbench workbench = frame().workbench().orElseThrow();
        var fix = workbench.fix(page()).orElseThrow();
        workbench.edit(page(), FixEdits.addCase(fix, java.util.List.of("U&'lamp\\0009shade'", "", "'lamp shade'")));
    }

    private Frame frame() {
        return Objects.requireNonNull(frame);
    }

    private void save(String name) throws Exception {
        settle();
        WritableImage image = onScreen(() -> frame().scene().snapshot(null));
        int width = (int) image.getWidth();
        int height = (int) image.getHeight();
        BufferedImage pixels = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        PixelReader reader = image.getPixelReader();
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                pixels.setRGB(x, y, reader.getArgb(x, y));
            }
        }
        Path file = folder.resolve(name + ".png");
        if (!ImageIO.write(pixels, "png", file.toFile())) {
            throw new IOException("no writer for PNG");
        }
    }

    /// Waits until nothing is being computed any more and the window has been laid out.
    private void settle() throws Exception {
        int quiet = 0;
        for (int i = 0; i < 6000 && quiet < 8; i++) {
            Thread.sleep(50);
            boolean idle = onScreen(() -> frame().isIdle());
            quiet = idle ? quiet + 1 : 0;
        }
    }

    private static void onScreen(Runnable work) throws Exception {
        onScreen(() -> {
            work.run();
            return true;
        });
    }

    private static <T> T onScreen(Callable<T> work) throws Exception {
        CompletableFuture<T> done = new CompletableFuture<>();
        Platform.runLater(() -> {
            try {
                done.complete(work.call());
            } catch (Exception e) {
                done.completeExceptionally(e);
            }
        });
        return done.get();
    }
}
