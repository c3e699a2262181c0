package fixshelf.demo;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.List;
import java.util.concurrent.Executors;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// A small server that plays the pages of a parts merchant, one for a part and a day:
/// `/AQ-104/2026/03/02`, and `/AQ-104` for the last day. Some are missing, the one of BQ-210 is
/// slow, and the one of CQ-007 has moved.
public final class PricePages implements AutoCloseable {
    public static final int PORT = 4880;

    private static final List<String> PARTS = List.of("AQ-104", "AQ-417", "BQ-210", "CQ-007", "CQ-008", "DQ-330");
    private static final Pattern PATH = Pattern.compile("/([A-Z]{2}-[0-9]{3})(?:/([0-9]{4})/([0-9]{2})/([0-9]{2}))?");
    private static final long SLOW = 3_000;

    private final HttpServer server;

    private PricePages(HttpServer server) {
        this.server = server;
    }

    /// Serves on this machine only; port 0 for one that is free.
    public static PricePages serve(int port) throws IOException {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 0);
        server.setExecutor(Executors.newVirtualThreadPerTaskExecutor());
        server.createContext("/", PricePages::answer);
        server.start();
        return new PricePages(server);
    }

    public String address() {
        return "http://127.0.0.1:" + server.getAddress().getPort();
    }

    @Override
    public void close() {
        server.stop(0);
    }

    private static void answer(HttpExchange exchange) throws IOException {
        try (exchange) {
            String path = exchange.getRequestURI().getPath();
            Matcher asked = PATH.matcher(path);
            if (path.equals("/")) {
                send(exchange, 200, index());
            } else if (!asked.matches() || !PARTS.contains(asked.group(1)) || isMissing(asked)) {
                send(exchange, 404, "<html><body><p>No such part, or no price that day.</p></body></html>");
            } else if (asked.group(1).equals("CQ-007")) {
                exchange.getResponseHeaders().set("Location", path.replace("CQ-007", "CQ-008"));
                exchange.sendResponseHeaders(301, -1);
            } else {
                if (asked.group(1).equals("BQ-210")) {
                    Thread.sleep(SLOW);
                }
                send(exchange, 200, page(asked));
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /// On Sundays nobody sets a price.
    private static boolean isMissing(Matcher asked) {
        try {
            return asked.group(2) != null && day(asked).getDayOfWeek().getValue() == 7;
        } catch (DateTimeException e) {
            return true;
        }
    }

    private static LocalDate day(Matcher asked) {
        return asked.group(2) == null
                ? LocalDate.of(2026, 3, 31)
                : LocalDate.of(
                        Integer.parseInt(asked.group(2)),
                        Integer.parseInt(asked.group(3)),
                        Integer.parseInt(asked.group(4)));
    }

    private static String index() {
        StringBuilder out = new StringBuilder("<html><body><h1>Parts</h1><table><tr><th>part</th></tr>");
        PARTS.forEach(p -> out.append("<tr><td><a href=\"/")
                .append(p)
                .append("\">")
                .append(p)
                .append("</a></td></tr>"));
        return out.append("</table></body></html>").toString();
    }

    /// Two tables: what is open when, and the prices by how many are taken.
    private static String page(Matcher asked) {
        String part = asked.group(1);
        LocalDate day = day(asked);
        long cents = 120 + Math.floorMod(part.hashCode() + day.toEpochDay() * 7, 900);
        StringBuilder rows = new StringBuilder();
        for (int count : new int[] {1, 10, 50, 100}) {
            long price = cents * (100 - Math.min(30, count / 4)) / 100;
            rows.append("<tr><td>")
                    .append(count)
                    .append("</td><td>£ ")
                    .append(price / 100)
                    .append('.');
            rows.append(String.format(java.util.Locale.ROOT, "%02d", price % 100))
                    .append("</td><td>");
            rows.append(count == 50 ? "" : count < 50 ? "in stock" : "3&nbsp;weeks")
                    .append("</td></tr>");
        }
        return """
                <html><head><meta charset="utf-8"><title>%1$s</title></head><body>
                <h1>Fenwright parts</h1>
                <table><caption>Open</caption><tr><th>day</th><th>from</th><th>to</th></tr>
                <tr><td>Monday to Friday</td><td>8.00</td><td>17.30</td></tr><tr><td>Saturday</td><td>9.00</td><td>12.00</td></tr></table>
                <table><caption>Price of %1$s on %2$s</caption>
                <thead><tr><th>from pieces</th><th>price each</th><th>delivery</th></tr></thead><tbody>%3$s</tbody></table>
                </body></html>""".formatted(part, day, rows);
    }

    private static void send(HttpExchange exchange, int status, String page) throws IOException {
        byte[] bytes = page.getBytes(StandardCharsets.UTF_8);
        exchange.getResponseHeaders().set("Content-Type", "text/html; charset=utf-8");
        exchange.sendResponseHeaders(status, bytes.length);
        try (OutputStream out = exchange.getResponseBody()) {
            out.write(bytes);
        }
    }
}
