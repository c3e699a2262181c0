package fixshelf.fetch;

import fixshelf.engine.Stop;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.source.PageTables;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodySubscriber;
import java.nio.ByteBuffer;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Flow;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jspecify.annotations.Nullable;

/// A table of a page of the web. The page is read once; nothing that it names is read with it.
final class WebTable implements Source {
    static final int MOST_BYTES = 50_000_000;
    private static final int MOST_MOVES = 5;

    private final String address;
    private final ReadOptions.Form.Web form;

    WebTable(String address, ReadOptions.Form.Web form) {
        this.address = address.strip();
        this.form = form;
    }

    @Override
    public Optional<Consent.Place> place() {
        return Optional.of(place(uri(address)));
    }

    private static Consent.Place place(URI uri) {
        return Consent.Place.host(uri.getHost(), uri.getPort());
    }

    @Override
    public String shown() {
        return (form.table().isEmpty() ? "The table" : "Table " + form.table()) + " of " + address;
    }

    private URI uri(String written) {
        try {
            URI uri = new URI(written);
            boolean web = uri.getScheme() != null
                    && uri.getScheme().toLowerCase(Locale.ROOT).matches("https?");
            if (web && uri.getHost() != null && uri.getUserInfo() == null) {
                return uri;
            }
        } catch (java.net.URISyntaxException e) {
            // Said below.
        }
        throw problem(
                Code.BAD_FIELD,
                "This is no address of a page: " + written.replaceFirst("//[^/@]*@", "//…@") + ".",
                "Write https://host/page, without a name or password in it.");
    }

    /// The same table of a page that was saved as a file.
    static Source ofFile(Path file, ReadOptions.Form.Web form) {
        WebTable table = new WebTable(file.getFileName().toString(), form);
        return Source.of(Optional.empty(), table.shown(), (_, to) -> table.write(Jsoup.parse(file, null, ""), to));
    }

    @Override
    public void write(Path shelf, Path to) throws IOException {
        write(page(shelf), to);
    }

    /// All tables of the page.
    PageTables tables(Path shelf) throws IOException {
        return new PageTables(page(shelf), shownAddress());
    }

    private void write(Document page, Path to) throws IOException {
        List<List<@Nullable String>> rows = new PageTables(page, shownAddress()).rows(form.table());
        if (rows.isEmpty()) {
            throw problem(Code.FILE_EMPTY, "The table has no rows.", "Name another table of the page.");
        }
        int width = rows.stream().mapToInt(List::size).max().orElse(0);
        if (width > PageTables.MOST_COLUMNS) {
            throw problem(
                    Code.FILE_BROKEN, "The table has more than 16,384 columns.", "Name another table of the page.");
        }
        try (CopyWriter out = new CopyWriter(to)) {
            if (!form.heading()) {
                List<String> names = new ArrayList<>();
                for (int i = 1; i <= width; i++) {
                    names.add("column_" + i);
                }
                out.row(names);
            }
            boolean first = form.heading();
            for (List<@Nullable String> row : rows) {
                List<@Nullable String> whole = new ArrayList<>(row);
                while (whole.size() < width) {
                    whole.add(null);
                }
                if (first) {
                    whole.replaceAll(n -> n == null ? "" : n);
                }
                first = false;
                out.row(whole);
            }
        }
    }

    /// The page, which may have moved: to another host only where the user allowed that one too.
    private Document page(Path shelf) throws IOException {
        long until = System.nanoTime() + Duration.ofSeconds(form.seconds()).toNanos();
        URI uri = uri(address);
        HttpClient client = HttpClient.newBuilder()
                .followRedirects(HttpClient.Redirect.NEVER)
                .connectTimeout(Duration.ofSeconds(Math.min(15, form.seconds())))
                .build();
        try (client) {
            for (int moves = 0; moves <= MOST_MOVES; moves++) {
                Consent.want(shelf, place(uri));
                HttpResponse<byte[]> answer = answer(client, uri, until);
                int status = answer.statusCode();
                Optional<String> next = answer.headers().firstValue("location");
                if (status / 100 == 3 && next.isPresent()) {
                    uri = uri(uri.resolve(next.get()).toString());
                    continue;
                }
                wantPage(answer, status);
                String charset = answer.headers()
                        .firstValue("content-type")
                        .filter(t -> t.toLowerCase(Locale.ROOT).contains("charset="))
                        .map(t -> t.replaceFirst("(?i).*charset=\\s*\"?([^\";]+).*", "$1")
                                .strip())
                        .orElse(null);
                try {
                    return Jsoup.parse(new ByteArrayInputStream(answer.body()), charset, uri.toString());
                } catch (IllegalArgumentException e) {
                    return Jsoup.parse(new ByteArrayInputStream(answer.body()), null, uri.toString());
                }
            }
        }
        throw problem(Code.FILE_BROKEN, "The page moves on and on.", "Look at its address in a browser.");
    }

    private void wantPage(HttpResponse<byte[]> answer, int status) {
        if (status == 404 || status == 410) {
            throw problem(Code.FILE_MISSING, "There is no such page (" + status + ").", "Look at the address.");
        }
        if (status == 401 || status == 403) {
            throw problem(
                    Code.FILE_MISSING,
                    "The page is not for everybody (" + status + ").",
                    "Save it from a browser, and read the file.");
        }
        if (status == 429 || status == 503) {
            throw problem(
                    Code.FILE_MISSING,
                    "The server wants to be asked less often (" + status + ").",
                    "Wait, and keep the copy: `keep: 1 day`.");
        }
        if (status != 200) {
            throw problem(
                    Code.FILE_MISSING, "The server fails (" + status + ").", "Try again later; nothing was kept.");
        }
        String type =
                answer.headers().firstValue("content-type").orElse("text/html").toLowerCase(Locale.ROOT);
        if (!type.contains("html") && !type.contains("xml") && !type.startsWith("text/plain")) {
            throw problem(
                    Code.FILE_BROKEN,
                    "That is no page, but " + type.replaceFirst(";.*", "") + ".",
                    "Save it, and read the file.");
        }
    }

    private HttpResponse<byte[]> answer(HttpClient client, URI uri, long until) throws IOException {
        HttpRequest request = HttpRequest.newBuilder(uri)
                .header("Accept", "text/html, application/xhtml+xml")
                .header("User-Agent", "Fix-Shelf")
                .build();
        CompletableFuture<HttpResponse<byte[]>> answer = client.sendAsync(request, _ -> new Limited());
        Stop.began(() -> answer.cancel(true));
        try {
            return answer.get(Math.max(1, until - System.nanoTime()), TimeUnit.NANOSECONDS);
        } catch (TimeoutException e) {
            answer.cancel(true);
            client.shutdownNow();
            throw problem(
                    Code.FILE_MISSING,
                    "The page took longer than " + form.seconds() + (form.seconds() == 1 ? " second." : " seconds."),
                    "Try again, or write `seconds:` and a greater number.");
        } catch (ExecutionException e) {
            Stop.check();
            throw failed(e.getCause() == null ? e : e.getCause());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("stopped", e);
        } finally {
            Stop.ended();
        }
    }

    private ProblemException failed(Throwable e) {
        if (e instanceof TooMuch || e.getCause() instanceof TooMuch) {
            return problem(
                    Code.FILE_BROKEN,
                    String.format("The page is larger than %,d MB, or never ends.", MOST_BYTES / 1_000_000),
                    "Look whether the address is that of a page.");
        }
        String why = e.getMessage() == null ? e.getClass().getSimpleName() : e.getMessage();
        return problem(
                Code.FILE_MISSING,
                "The server does not answer: " + why + ".",
                "Look whether you are connected, and at the address; nothing was kept.");
    }

    private static final class TooMuch extends IOException {}

    /// Takes so many bytes and no more.
    private static final class Limited implements BodySubscriber<byte[]> {
        private final CompletableFuture<byte[]> body = new CompletableFuture<>();
        private final ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        private Flow.@Nullable Subscription subscription;

        @Override
        public CompletionStage<byte[]> getBody() {
            return body;
        }

        @Override
        public void onSubscribe(Flow.Subscription to) {
            subscription = to;
            to.request(Long.MAX_VALUE);
        }

        @Override
        public void onNext(List<ByteBuffer> some) {
            for (ByteBuffer buffer : some) {
                byte[] more = new byte[buffer.remaining()];
                buffer.get(more);
                bytes.writeBytes(more);
            }
            if (bytes.size() > MOST_BYTES && subscription != null) {
                subscription.cancel();
                body.completeExceptionally(new TooMuch());
            }
        }

        @Override
        public void onError(Throwable e) {
            body.completeExceptionally(e);
        }

        @Override
        public void onComplete() {
            body.complete(bytes.toByteArray());
        }
    }

    private ProblemException problem(Code code, String what, String todo) {
        String shown = shownAddress();
        return new ProblemException(Problem.about(code, shown, shown + ": " + what, todo));
    }

    /// Without what could be a password.
    private String shownAddress() {
        return address.replaceFirst("//[^/@]*@", "//…@");
    }
}
