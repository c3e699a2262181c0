package fixshelf.desktop;

import fixshelf.demo.DemoShelf;
import fixshelf.demo.PricePages;
import fixshelf.desktop.workbench.UserSettings;
import fixshelf.desktop.workbench.Workbench;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.Writer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import javafx.application.Platform;
import javafx.stage.Stage;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/// The commands that open the window or draw it.
final class WindowCommands {
    private static final int WRONG_USE = 2;

    private WindowCommands() {}

    @Command(
            name = "demo",
            mixinStandardHelpOptions = true,
            description = "Open the demo shelf, the Brindle Valley mending rooms: a copy that you may change.")
    static final class Demo implements Callable<Integer> {
        @Option(
                names = "--to",
                paramLabel = "DIR",
                description = "Where the copy is; a folder of your own when left out.")
        @Nullable
        Path folder;

        @Option(names = "--rows", paramLabel = "N", defaultValue = "12408", description = "Rows of the largest file.")
        long rows = DemoShelf.ROWS;

        @Option(names = "--no-window", description = "Only make the copy.")
        boolean noWindow;

        @Override
        public Integer call() throws IOException {
            String size = rows == DemoShelf.ROWS ? "demo" : "demo-" + rows;
            Path home = Path.of(System.getProperty("user.home"), ".fixshelf", size);
            Path copy = DemoShelf.create(
                    (folder == null ? home : folder).toAbsolutePath().normalize(), rows);
            if (noWindow) {
                System.out.println(copy);
                return 0;
            }
            return open(Optional.of(copy));
        }
    }

    @Command(
            name = "prices",
            mixinStandardHelpOptions = true,
            description = "Serve the pages of the demo's parts merchant on this machine, until it is ended.")
    static final class Prices implements Callable<Integer> {
        @Option(names = "--port", paramLabel = "N", defaultValue = "4880", description = "The port.")
        int port = PricePages.PORT;

        @Override
        public Integer call() throws IOException, InterruptedException {
            try (PricePages pages = PricePages.serve(port)) {
                System.out.println(pages.address() + "  (Ctrl+C ends it)");
                Thread.sleep(Long.MAX_VALUE);
            }
            return 0;
        }
    }

    @Command(
            name = "window",
            mixinStandardHelpOptions = true,
            description = "Open the window, with a shelf or with the last one.")
    static final class Window implements Callable<Integer> {
        @Parameters(arity = "0..1", paramLabel = "DIR", description = "The shelf; the last one when left out.")
        @Nullable
        Path folder;

        @Option(names = "--shelf", paramLabel = "DIR", description = "The shelf, as for every other command.")
        @Nullable
        Path shelf;

        @Override
        public Integer call() {
            return open(Optional.ofNullable(shelf != null ? shelf : folder));
        }
    }

    @Command(
            name = "shots",
            mixinStandardHelpOptions = true,
            description = "Draw every main view from the demo data as PNG, without a display.")
    static final class Draw implements Callable<Integer> {
        @Parameters(paramLabel = "DIR", description = "Where the pictures go.")
        Path folder = Path.of(".");

        @Override
        public Integer call() throws Exception {
            System.setProperty("glass.platform", "Headless");
            System.setProperty("prism.order", "sw");
            Path home = Files.createTempDirectory("fixshelf-shots");
            System.setProperty("user.home", home.toString());
            Path shelf = home.resolve("shelves/brindle-valley");
            DemoShelf.create(shelf, DemoShelf.ROWS);
            new Shots(shelf, folder).draw();
            Platform.exit();
            return 0;
        }
    }

    @Command(
            name = "warm-up",
            hidden = true,
            description = "Start once without a display, so that later starts are fast.")
    static final class WarmUp implements Callable<Integer> {
        private static final int ROWS = 300;

        @Override
        public Integer call() throws Exception {
            System.setProperty("glass.platform", "Headless");
            System.setProperty("prism.order", "sw");
            Path shelf = DemoShelf.create(Files.createTempDirectory("fixshelf-warm-up"), ROWS);
            new Shots(shelf, shelf).warmUp();
            Platform.exit();
            for (List<String> arguments : List.of(
                    List.of("preview", "visits_clean"),
                    List.of("run", "visits_clean"),
                    List.of("run", "village_figures"),
                    List.of("test", "squeeze_spaces"),
                    List.of("try", "squeeze_spaces", " a "))) {
                List<String> whole = new ArrayList<>(arguments);
                whole.addAll(List.of("--shelf", shelf.toString()));
                CommandLine line = Main.commandLine(whole.toArray(String[]::new));
                line.setOut(new PrintWriter(Writer.nullWriter()));
                line.setErr(new PrintWriter(Writer.nullWriter()));
                line.execute(whole.toArray(String[]::new));
            }
            remove(shelf);
            return 0;
        }
    }

    @Command(
            name = "learn-demo",
            hidden = true,
            description =
                    "Run what is asked for most on the demo, so that what it loads is recorded for faster starts.")
    static final class LearnDemo implements Callable<Integer> {
        private static final int ROWS = 60;

        @Override
        public Integer call() throws Exception {
            Path shelf = DemoShelf.create(Files.createTempDirectory("fixshelf-learn"), ROWS);
            try {
                return Main.commandLine("learn-start").execute("learn-start", shelf.toString());
            } finally {
                remove(shelf);
            }
        }
    }

    private static void remove(Path folder) throws IOException {
        try (var files = Files.walk(folder)) {
            for (Path file : files.sorted(java.util.Comparator.reverseOrder()).toList()) {
                Files.deleteIfExists(file);
            }
        }
    }

    private static int open(Optional<Path> shelf) {
        boolean linux = System.getProperty("os.name").toLowerCase(Locale.ROOT).contains("linux");
        boolean headless = "Headless".equals(System.getProperty("glass.platform"));
        if (linux
                && !headless
                && List.of("DISPLAY", "WAYLAND_DISPLAY").stream()
                        .allMatch(v ->
                                System.getenv(v) == null || System.getenv(v).isBlank())) {
            System.err.println("There is no display to open a window on.");
            System.err.println(
                    "Start Fix Shelf from a desktop session, set DISPLAY, or use the command line: fixshelf --help.");
            return WRONG_USE;
        }
        CountDownLatch closed = new CountDownLatch(1);
        Platform.startup(() -> {
            UserSettings settings = UserSettings.ofUser();
            Stage stage = new Stage();
            Frame frame = new Frame(stage, settings);
            Optional<Path> wanted = shelf.or(settings::lastShelf);
            wanted.ifPresentOrElse(frame::open, () -> frame.welcome(List.of()));
            stage.setOnHidden(_ -> {
                frame.workbench().ifPresent(Workbench::close);
                closed.countDown();
            });
            stage.show();
            if (Boolean.getBoolean("fixshelf.measure")) {
                System.out.println("window visible after " + millisSinceStart() + " ms");
            }
        });
        try {
            closed.await();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        Platform.exit();
        return 0;
    }

    static long millisSinceStart() {
        return System.currentTimeMillis()
                - ProcessHandle.current().info().startInstant().orElseThrow().toEpochMilli();
    }
}
