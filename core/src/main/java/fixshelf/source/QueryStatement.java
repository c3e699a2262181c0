package fixshelf.source;

import fixshelf.plan.QueryValues;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.type.Literals;
import java.math.BigDecimal;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Types;
import java.time.LocalDate;
import java.time.LocalDateTime;

/// Gives the values of a query to the server, beside its text.
public final class QueryStatement {
    private QueryStatement() {}

    /// A statement with its values in it.
    ///
    /// @param sql with the places of the values, as in the query
    /// @param engine `postgresql`, which finds out the type of a text by itself; `sqlite`, whose days are texts; or
    /// another
    public static PreparedStatement of(Connection connection, String sql, QueryValues query, String engine)
            throws SQLException {
        PreparedStatement statement = connection.prepareStatement(sql);
        try {
            wantPlaces(statement, query);
            for (int i = 0; i < query.values().size(); i++) {
                set(statement, i + 1, query.values().get(i), engine);
            }
            return statement;
        } catch (SQLException | ProblemException e) {
            statement.close();
            throw e;
        }
    }

    /// In quotes, or in a comment, there is no place for a value.
    private static void wantPlaces(PreparedStatement statement, QueryValues query) throws SQLException {
        int places =
                query.values().isEmpty() ? 0 : statement.getParameterMetaData().getParameterCount();
        if (places != query.values().size()) {
            String names = "{" + String.join("}, {", query.names()) + "}";
            throw new ProblemException(
                    Problem.about(
                            Code.BAD_FIELD,
                            "query",
                            "The query has " + places + " places for "
                                    + query.values().size() + " values (" + names + ").",
                            "A value stands by itself: no quotes around its name, and none in a comment; a ? of the query's own is not possible beside it."));
        }
    }

    private static void set(PreparedStatement statement, int place, Object value, String engine) throws SQLException {
        boolean texts = engine.equals("sqlite");
        switch (value) {
            case Long number -> statement.setLong(place, number);
            case BigDecimal number -> statement.setBigDecimal(place, number);
            case Boolean truth -> statement.setBoolean(place, truth);
            case LocalDate day when texts -> statement.setString(place, day.toString());
            case LocalDate day -> statement.setObject(place, day);
            case LocalDateTime time when texts -> statement.setString(place, Literals.time(time));
            case LocalDateTime time -> statement.setObject(place, time);
            default -> {
                if (engine.equals("postgresql")) {
                    statement.setObject(place, value.toString(), Types.OTHER);
                } else {
                    statement.setString(place, value.toString());
                }
            }
        }
    }
}
