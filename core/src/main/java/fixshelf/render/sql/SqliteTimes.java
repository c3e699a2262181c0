package fixshelf.render.sql;

import fixshelf.language.tree.Expr;

/// Times in SQLite, which has no type for them: texts in the standard's order, with the digits of a fraction that are
/// no needless zeros, so that they compare as the times do.
final class SqliteTimes {
    private SqliteTimes() {}

    static void addTo(SqlLanguage language) {
        language.say("to_timestamp", a -> {
            String text = language.sql(a.getFirst()).text();
            String digits = "[0-9][0-9]";
            String shape = digits + digits + "-" + digits + "-" + digits + " " + digits + ":" + digits + ":" + digits;
            String second = "substr(" + text + ", 1, 19)";
            String part = "substr(" + text + ", 20)";
            return Sql.caseWhen(
                    Sql.atom(second + " GLOB '" + shape + "' AND " + second + " >= '0001' AND substr(" + text
                            + ", 12, 2) < '24' AND datetime(" + second + ", '+0 days') = " + second + " AND (" + part
                            + " = '' OR " + part + " GLOB '.[0-9]*' AND length(" + part + ") < 8 AND substr(" + text
                            + ", 21) NOT GLOB '*[^0-9]*')"),
                    Sql.infix(Sql.atom(second), "||", Sql.atom("rtrim(rtrim(" + part + ", '0'), '.')"), Sql.OTHER));
        });
        language.say("format_timestamp", a -> language.sql(a.getFirst()));
        language.say(
                "date_of", a -> Sql.atom("substr(" + language.sql(a.getFirst()).text() + ", 1, 10)"));
        language.say(
                "at_midnight", a -> Sql.infix(language.sql(a.getFirst()), "||", Sql.atom("' 00:00:00'"), Sql.OTHER));
        language.say("hour", a -> digits(language, a.getFirst(), 12));
        language.say("minute", a -> digits(language, a.getFirst(), 15));
        language.say("second", a -> digits(language, a.getFirst(), 18));
        language.say("add_seconds", a -> {
            String time = language.sql(a.get(0)).text();
            String second = "datetime(substr(" + time + ", 1, 19), "
                    + language.seconds(a.get(1)).text() + " || ' seconds')";
            return Sql.caseWhen(
                    Sql.atom(second + " BETWEEN '0001-01-01 00:00:00' AND '9999-12-31 23:59:59'"),
                    Sql.infix(Sql.atom(second), "||", Sql.atom("substr(" + time + ", 20)"), Sql.OTHER));
        });
        language.say(
                "microsecond", a -> Sql.atom(micros(language.sql(a.getFirst()).text())));
        language.say("add_microseconds", a -> {
            // What is asked stands innermost, where no name of ours is known.
            String time = language.sql(a.get(0)).text();
            String asked = "SELECT substr(" + time + ", 1, 19) AS begun, " + micros(time) + " AS part, "
                    + language.micros(a.get(1)).text() + " AS more";
            String counted = "SELECT datetime(begun, (more / 1000000 + (part + 1000000 + more % 1000000) / 1000000 - 1)"
                    + " || ' seconds') AS moment, (part + 1000000 + more % 1000000) % 1000000 AS micros\n      FROM ("
                    + asked + ")";
            return Sql.atom("(SELECT CASE WHEN moment BETWEEN '0001-01-01 00:00:00' AND '9999-12-31 23:59:59'"
                    + " THEN moment || rtrim(rtrim(printf('.%06d', micros), '0'), '.') END\n      FROM (" + counted
                    + "))");
        });
        language.say("seconds_between", a -> {
            String start = language.sql(a.get(0)).text();
            String end = language.sql(a.get(1)).text();
            String more = "substr(" + end + ", 20) > substr(" + start + ", 20)";
            String less = "substr(" + end + ", 20) < substr(" + start + ", 20)";
            return new Sql(
                    "strftime('%s', substr(" + end + ", 1, 19)) - strftime('%s', substr(" + start
                            + ", 1, 19)) + CASE WHEN " + start + " <= " + end + " THEN -(" + less + ") ELSE " + more
                            + " END",
                    Sql.SUM);
        });
    }

    private static String micros(String time) {
        return "CAST(substr(substr(" + time + ", 21) || '000000', 1, 6) AS INTEGER)";
    }

    private static Sql digits(SqlLanguage language, Expr time, int from) {
        return Sql.atom("CAST(substr(" + language.sql(time).text() + ", " + from + ", 2) AS INTEGER)");
    }
}
