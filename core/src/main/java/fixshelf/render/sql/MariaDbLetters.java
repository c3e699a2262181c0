package fixshelf.render.sql;

import fixshelf.language.pattern.Regex.CharacterSet;
import fixshelf.language.pattern.Regex.Range;
import fixshelf.language.tree.Expr;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/// Letters instead of others in MariaDB.
final class MariaDbLetters {
    /// So many characters are set aside at once.
    private static final int MOST = 32;

    private final SqlLanguage language;

    private MariaDbLetters(SqlLanguage language) {
        this.language = language;
    }

    static void addTo(SqlLanguage language) {
        language.say("translate", new MariaDbLetters(language)::translate);
    }

    /// It has no such function; characters that lead to the same one are replaced together. Where one is replaced by
    /// another that is itself replaced, all are set aside first.
    private Sql translate(List<Expr> a) {
        if (!(a.get(1) instanceof Expr.Literal(String from, Type _)
                && a.get(2) instanceof Expr.Literal(String to, Type _))) {
            throw language.cannot("the characters come through a parameter.", "Copy it with the characters filled in.");
        }
        Map<String, List<Range>> groups = new LinkedHashMap<>();
        int[] targets = to.codePoints().toArray();
        int[] points = from.codePoints().toArray();
        for (int i = 0; i < points.length; i++) {
            if (indexOf(points, points[i]) == i) {
                String target = i < targets.length ? Character.toString(targets[i]) : "";
                groups.computeIfAbsent(target, _ -> new ArrayList<>()).add(new Range(points[i], points[i]));
            }
        }
        boolean aside = groups.keySet().stream().anyMatch(t -> !t.isEmpty() && from.contains(t));
        if (aside && groups.size() > MOST) {
            throw language.cannot(
                    "it has no translate, and this one swaps too many characters.", "Translate in two steps.");
        }
        Sql text = language.sql(a.getFirst());
        int next = SqlParts.SET_ASIDE;
        for (Map.Entry<String, List<Range>> group : groups.entrySet()) {
            String set = language.regexWriter().write(new CharacterSet(group.getValue(), false));
            String written = aside ? Character.toString(next++) : group.getKey().replace("\\", "\\\\");
            text = Sql.call(
                    "regexp_replace", text, Sql.atom(language.text("(?-i)" + set)), Sql.atom(language.text(written)));
        }
        next = SqlParts.SET_ASIDE;
        for (String target : aside ? groups.keySet() : Set.<String>of()) {
            text = Sql.call(
                    "replace",
                    text,
                    Sql.atom(language.text(Character.toString(next++))),
                    Sql.atom(language.text(target)));
        }
        return text;
    }

    private static int indexOf(int[] points, int wanted) {
        int at = 0;
        while (points[at] != wanted) {
            at++;
        }
        return at;
    }
}
