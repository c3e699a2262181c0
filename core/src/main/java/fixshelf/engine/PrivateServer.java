package fixshelf.engine;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.UserPrincipal;
import java.security.SecureRandom;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;

/// A database server that is started for checks only: on a free port of this machine, with a folder and a password of
/// its own. It ends with the program.
final class PrivateServer {
    private static final int SECONDS = Patience.seconds(60);

    /// Starts the program that follows, and ends it when nobody holds the other end of its input any more: also when
    /// the program that asked for it was killed. Then the folder, which is the first argument, goes too.
    private static final String WATCHED = """
            exec 3<&0
            folder=$1; shift
            "$@" </dev/null 3<&- &
            server=$!
            (
              cat <&3 >/dev/null
              trap '' TERM
              kill -TERM $server 2>/dev/null
              for i in 1 2 3 4 5 6 7 8 9 10; do kill -0 $server 2>/dev/null || break; sleep 0.3; done
              kill -KILL $server 2>/dev/null
              rm -rf -- "$folder"
            ) &
            watch=$!
            wait $server
            ended=$?
            kill $watch 2>/dev/null
            exit $ended
            """;

    private static final Path SHELL = Path.of("/bin/sh");

    private final TemporaryFolder own;
    private final int port;
    private final String password;
    private final List<String> asOther;
    private volatile Optional<Process> serving = Optional.empty();

    private PrivateServer(TemporaryFolder folder, int port, String password, List<String> asOther) {
        this.own = folder;
        this.port = port;
        this.password = password;
        this.asOther = asOther;
    }

    int port() {
        return port;
    }

    String password() {
        return password;
    }

    Path folder() {
        return own.path();
    }

    /// A folder, a port and a password for a server. Database servers refuse to run as root; there `user`, or nobody,
    /// runs it.
    static PrivateServer prepare(String name, String user) throws IOException {
        TemporaryFolder folder = TemporaryFolder.make(name);
        byte[] secret = new byte[16];
        new SecureRandom().nextBytes(secret);
        List<String> asOther = new ArrayList<>();
        if ("root".equals(System.getProperty("user.name"))) {
            String other = exists(user) ? user : "nobody";
            UserPrincipal owner =
                    FileSystems.getDefault().getUserPrincipalLookupService().lookupPrincipalByName(other);
            Files.setOwner(folder.path(), owner);
            asOther.addAll(List.of("runuser", "-u", other, "--"));
        }
        try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            PrivateServer server = new PrivateServer(
                    folder, free.getLocalPort(), HexFormat.of().formatHex(secret), List.copyOf(asOther));
            Runtime.getRuntime().addShutdownHook(new Thread(server::end));
            return server;
        }
    }

    private static boolean exists(String user) {
        try {
            FileSystems.getDefault().getUserPrincipalLookupService().lookupPrincipalByName(user);
            return true;
        } catch (IOException e) {
            return false;
        }
    }

    /// A file in the folder that the server may read.
    Path write(String name, String text) throws IOException {
        Path file = Files.writeString(own.path().resolve(name), text, StandardCharsets.UTF_8);
        if (!asOther.isEmpty()) {
            Files.setOwner(file, Files.getOwner(own.path()));
        }
        return file;
    }

    /// Runs a program to its end.
    void run(List<String> command) throws IOException {
        Process process = start(command);
        try {
            if (!process.waitFor(SECONDS, TimeUnit.SECONDS)) {
                process.destroyForcibly();
                throw new IOException(command.getFirst() + " did not end within " + SECONDS + " seconds");
            }
        } catch (InterruptedException e) {
            process.destroyForcibly();
            Thread.currentThread().interrupt();
            throw new IOException("stopped", e);
        }
        if (process.exitValue() != 0) {
            throw new IOException(command.getFirst() + ": " + lastWords());
        }
    }

    /// Starts a program that goes on until the program ends.
    Process serve(List<String> command) throws IOException {
        List<String> watched = new ArrayList<>();
        if (Files.isExecutable(SHELL)) {
            watched.addAll(
                    List.of(SHELL.toString(), "-c", WATCHED, "watch", own.path().toString()));
        }
        watched.addAll(command);
        Process process = start(watched);
        serving = Optional.of(process);
        return process;
    }

    /// Whether it began to serve and has ended.
    boolean hasEnded() {
        return serving.map(p -> !p.isAlive()).orElse(false);
    }

    private void end() {
        serving.ifPresent(process -> {
            try {
                process.getOutputStream().close();
                if (!Files.isExecutable(SHELL) || !process.waitFor(6, TimeUnit.SECONDS)) {
                    process.destroy();
                    process.waitFor(5, TimeUnit.SECONDS);
                }
            } catch (IOException e) {
                process.destroy();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        });
        own.close();
    }

    private Process start(List<String> command) throws IOException {
        List<String> all = new ArrayList<>(asOther);
        all.addAll(command);
        return new ProcessBuilder(all)
                .directory(own.path().toFile())
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.appendTo(
                        own.path().resolve("messages.txt").toFile()))
                .start();
    }

    String lastWords() {
        try (Stream<String> lines = Files.lines(own.path().resolve("messages.txt"))) {
            return lines.filter(l -> !l.isBlank()).reduce("", (_, b) -> b);
        } catch (IOException e) {
            return "no message";
        }
    }

    /// The newest program of that name on the path or in the usual folders.
    static Optional<Path> find(String program, List<Path> folders) {
        Stream<Path> onPath = Stream.of(
                        Optional.ofNullable(System.getenv("PATH")).orElse("").split(java.io.File.pathSeparator))
                .filter(p -> !p.isBlank())
                .map(Path::of);
        return Stream.concat(folders.stream().flatMap(PrivateServer::versions), onPath)
                .map(f -> f.resolve(program))
                .filter(Files::isExecutable)
                .findFirst();
    }

    private static double version(Path folder) {
        String name = folder.getFileName().toString();
        return name.matches("[0-9]+([.][0-9]+)?") ? Double.parseDouble(name) : -1;
    }

    /// The folder itself, or for a `*` in it every folder that stands there, the newest first.
    private static Stream<Path> versions(Path folder) {
        int star = -1;
        for (int i = 0; i < folder.getNameCount(); i++) {
            star = folder.getName(i).toString().equals("*") ? i : star;
        }
        if (star < 0) {
            return Stream.of(folder);
        }
        Path before = folder.getRoot().resolve(folder.subpath(0, star));
        Path after = folder.subpath(star + 1, folder.getNameCount());
        if (!Files.isDirectory(before)) {
            return Stream.of();
        }
        try (Stream<Path> entries = Files.list(before)) {
            return entries
                    .sorted(Comparator.comparingDouble(PrivateServer::version).reversed())
                    .map(e -> e.resolve(after))
                    .toList()
                    .stream();
        } catch (IOException e) {
            return Stream.of();
        }
    }
}
