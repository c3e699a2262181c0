package fixshelf.export;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import fixshelf.language.tree.Definition;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.render.Language;
import fixshelf.render.Language.Described;
import fixshelf.render.Languages;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.Shelf;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/// What the checks of an exported folder found where they ran: on which engine, when, of which functions, and which
/// cases failed.
///
/// @param language the language of the folder
/// @param digest a number made of the functions that were checked
/// @param engine the engine with its version, as it calls itself
/// @param at when it was, by the engine's clock
/// @param cases how many cases of each fix were run
/// @param failing how many of them failed
public record Receipt(
        String language,
        String digest,
        String engine,
        String at,
        Map<String, Integer> cases,
        Map<String, Integer> failing) {
    /// The field by which a receipt is found in a text that a client printed.
    static final String MARK = "{\"fix_shelf_receipt\"";

    private static final ObjectMapper JSON = new ObjectMapper();

    /// The receipt in a text, whatever a client printed around it; a text without one is a problem.
    public static Outcome<Receipt> read(String name, String text) {
        // What is printed as delimited text has its quotes doubled.
        String plain = text.contains(MARK) ? text : text.replace("\"\"", "\"");
        int at = plain.indexOf(MARK);
        if (at < 0) {
            return refused(name, "There is no receipt in " + name + ".");
        }
        try {
            JsonNode node = JSON.readTree(JSON.createParser(plain.substring(at)));
            Map<String, Integer> cases = new TreeMap<>();
            node.path("cases")
                    .properties()
                    .forEach(e -> cases.put(e.getKey(), e.getValue().asInt()));
            Map<String, Integer> failing = new TreeMap<>();
            node.path("failing").properties().stream()
                    .filter(e -> e.getValue().asInt() > 0)
                    .forEach(e -> failing.put(e.getKey(), e.getValue().asInt()));
            return Outcome.of(new Receipt(
                    node.path("language").asText(),
                    node.path("digest").asText(),
                    node.path("engine").asText(),
                    node.path("at").asText(),
                    cases,
                    failing));
        } catch (JsonProcessingException e) {
            return refused(name, "The receipt in " + name + " is broken: " + e.getOriginalMessage() + ".");
        } catch (java.io.IOException e) {
            throw new IllegalStateException("a text in memory cannot fail", e);
        }
    }

    private static Outcome<Receipt> refused(String name, String what) {
        return Outcome.failed(
                Problem.about(
                        Code.NO_SUCH,
                        name,
                        what,
                        "Run the checks of an exported folder (export --tests), and give what receipt.sql, receipt.R or pytest wrote."));
    }

    /// How many cases were run.
    public int caseCount() {
        return cases.values().stream().mapToInt(n -> n).sum();
    }

    public int failingCount() {
        return failing.values().stream().mapToInt(n -> n).sum();
    }

    /// Why the receipt does not prove the fixes of a shelf as they are now: cases that did not run or that failed,
    /// functions that are other ones. Nothing where it does.
    public List<String> objections(Shelf shelf) {
        Optional<Language> known = Languages.find(language);
        if (known.isEmpty()) {
            return List.of("There is no language " + language + " here.");
        }
        List<String> all = new ArrayList<>();
        Export.cases(shelf, known.get()).forEach((fix, n) -> {
            int ran = cases.getOrDefault(fix, 0);
            if (ran < n) {
                all.add(fix + ": " + ran + " of its " + n + " cases ran.");
            }
        });
        failing.forEach(
                (fix, n) -> all.add(fix + ": " + n + " of " + cases.getOrDefault(fix, n) + " cases fail there."));
        MadeFile now = module(shelf, known.get());
        if (!digest.equals(now.number()) && !digest.equals(now.md5())) {
            all.add("It is of other functions than the shelf gives now: export again, and run the checks there.");
        }
        return all;
    }

    /// Fixes that the language can say, and that have no case that can be run there.
    public List<String> untried(Shelf shelf) {
        return Languages.find(language).stream()
                .flatMap(l -> Export.fixes(shelf, l, new ArrayList<>()).stream())
                .map(Export.Exported::page)
                .map(FixPage::name)
                .filter(n -> !cases.containsKey(n))
                .toList();
    }

    private static MadeFile module(Shelf shelf, Language language) {
        List<Described> described = Export.fixes(shelf, language, new ArrayList<>()).stream()
                .map(f -> described(f.fix(), f.page()))
                .toList();
        return Export.functions(language, java.nio.file.Path.of(""), language.module(described));
    }

    private static Described described(Definition fix, FixPage page) {
        return new Described(fix, page.summary());
    }
}
