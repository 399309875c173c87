using CalmQuill.Core.Spots;
using CalmQuill.Core.Text;
using CalmQuill.Store.Locks;
using Npgsql;

namespace CalmQuill.Store.Spots;

/// <summary>Reads marks, links and headings across pages. What is in the bin, or in a notebook that is shut, is left out.</summary>
public sealed class SpotStore(Database database)
{
    /// <summary>How many marks are given at once.</summary>
    public const int MostMarks = 2_000;

    /// <summary>Among so many headings of a space it is looked for one.</summary>
    private const int MostHeadings = 5_000;

    private const string Columns = """
        e.space_id, e.notebook_id, n.name, n.parent, e.id, e.number, e.title, e.paper, coalesce(d.last_seq, 0), e.tags,
        s.id, s.kind, s.area, s.mark, s.note, s.due, s.person, s.target, s.title, s.level, s.is_open, s.created_at, s.author, s.done_at, s.done_by,
        s.answers, s.is_answered
        """;

    private const string From = """
        page_spots s
        JOIN notebook_entries e ON e.space_id = s.space_id AND e.id = s.page_id AND NOT e.in_bin
            AND (e.space_id, e.notebook_id) NOT IN (SELECT * FROM unnest(@lockedSpaces, @locked))
        JOIN page_homes h ON h.space_id = e.space_id AND h.page_id = e.id
            AND (h.space_id, h.notebook_id) NOT IN (SELECT * FROM unnest(@lockedSpaces, @locked))
        JOIN library_nodes n ON n.space_id = e.space_id AND n.id = e.notebook_id AND NOT n.in_bin
        LEFT JOIN documents d ON d.space_id = e.space_id AND d.kind = 3 AND d.id = e.id
        """;

    /// <summary>The marks of all notebooks a person may see, newest first.</summary>
    public Task<List<ShownSpot>> Marks(Guid person, bool onlyOpen, IReadOnlyList<NotebookRef> locked, CancellationToken cancel) =>
        Read(
            $"""
            SELECT {Columns} FROM {From}
            JOIN members m ON m.space_id = s.space_id AND m.person_id = @person
            WHERE s.kind = 1 AND (s.is_open OR NOT @open)
            ORDER BY s.created_at DESC
            LIMIT {MostMarks}
            """,
            cancel,
            locked,
            ("person", person),
            ("open", onlyOpen)
        );

    /// <summary>Everything on the pages of a notebook.</summary>
    /// <param name="space">The library.</param>
    /// <param name="notebook">The notebook.</param>
    /// <param name="atHome">Whether only of those that are at home in it.</param>
    /// <param name="locked">Notebooks of which nothing is told.</param>
    /// <param name="cancel">Gives up.</param>
    public Task<List<ShownSpot>> OfNotebook(
        Guid space,
        Guid notebook,
        bool atHome,
        IReadOnlyList<NotebookRef> locked,
        CancellationToken cancel
    ) =>
        Read(
            $"""
            SELECT {Columns} FROM {From}
            WHERE e.space_id = @space AND e.notebook_id = @notebook AND (h.notebook_id = @notebook OR NOT @home)
            ORDER BY e.position, s.area[2], s.area[1]
            """,
            cancel,
            locked,
            ("space", space),
            ("home", atHome),
            ("notebook", notebook)
        );

    /// <summary>Headings of a space whose words hold a text, newest first, at most <paramref name="most"/>. Among the latest <see cref="MostHeadings"/> it is looked.</summary>
    /// <param name="space">The library.</param>
    /// <param name="text">What is looked for, folded (see <see cref="Folding"/>).</param>
    /// <param name="most">How many are given.</param>
    /// <param name="locked">Notebooks of which nothing is told.</param>
    /// <param name="cancel">Ends the work early.</param>
    public async Task<List<ShownSpot>> Headings(
        Guid space,
        string text,
        int most,
        IReadOnlyList<NotebookRef> locked,
        CancellationToken cancel
    )
    {
        // Folding is Core's, so the words alone are read first.
        var words = await database
            .Command(
                $"SELECT s.id, s.title FROM page_spots s WHERE s.space_id = @space AND s.kind = 3 AND s.title <> '' ORDER BY s.created_at DESC LIMIT {MostHeadings}"
            )
            .With(("space", space))
            .Rows(row => (Id: row.GetGuid(0), Title: row.GetString(1)), cancel);
        var ids = words.Where(one => Folding.Fold(one.Title).Contains(text, StringComparison.Ordinal)).Select(one => one.Id).ToArray();
        return ids.Length == 0
            ? []
            : await Read(
                $"""
                SELECT {Columns} FROM {From}
                WHERE s.space_id = @space AND s.kind = 3 AND s.id = ANY(@ids)
                ORDER BY s.created_at DESC
                LIMIT @most
                """,
                cancel,
                locked,
                ("space", space),
                ("ids", ids),
                ("most", most)
            );
    }

    /// <summary>The links of a person's libraries that lead to a page, to a place or mark on it, or, with no page, to a notebook or a section of it.</summary>
    public Task<List<ShownSpot>> Leading(
        Guid person,
        Guid space,
        Guid notebook,
        Guid? page,
        IReadOnlyList<NotebookRef> locked,
        CancellationToken cancel
    ) =>
        Read(
            $"""
            SELECT {Columns} FROM {From}
            JOIN members m ON m.space_id = s.space_id AND m.person_id = @person
            WHERE s.kind = 2 AND s.target_space = @space AND (s.target_page = @page OR (@page::uuid IS NULL AND s.target_notebook = @notebook AND s.target_page IS NULL))
            ORDER BY s.created_at DESC
            LIMIT 500
            """,
            cancel,
            locked,
            ("person", person),
            ("space", space),
            ("notebook", notebook),
            ("page", page)
        );

    /// <summary>The links on pages of some notebooks of a library.</summary>
    public Task<List<ShownSpot>> LinksFrom(
        Guid space,
        IReadOnlyList<Guid> notebooks,
        IReadOnlyList<NotebookRef> locked,
        CancellationToken cancel
    ) =>
        Read(
            $"""
            SELECT {Columns} FROM {From}
            WHERE s.kind = 2 AND e.space_id = @space AND e.notebook_id = ANY(@notebooks) AND s.target_notebook IS NOT NULL
            ORDER BY e.notebook_id, e.position
            LIMIT 5000
            """,
            cancel,
            locked,
            ("space", space),
            ("notebooks", notebooks.ToArray())
        );

    /// <summary>What others said lately that is meant for a person: that mentions them, or answers a mark that they put there or that is for them. Latest first.</summary>
    /// <param name="person">The person.</param>
    /// <param name="since">What came to the server after this, UTC milliseconds.</param>
    /// <param name="most">How many are given.</param>
    /// <param name="locked">Notebooks of which nothing is told.</param>
    /// <param name="cancel">Gives up.</param>
    public Task<List<ToldAnswer>> For(Guid person, long since, int most, IReadOnlyList<NotebookRef> locked, CancellationToken cancel) =>
        database
            .Command(
                $"""
                SELECT e.space_id, e.notebook_id, n.name, e.id, e.number, s.id, s.mark, s.note, a.id, p.id, p.name, p.colour, a.at, a.text, a.inked, @person = ANY(a.mentions), a.received
                FROM {From}
                JOIN page_answers a ON a.space_id = s.space_id AND a.page_id = s.page_id AND a.spot_id = s.id
                JOIN people p ON p.id = a.author
                JOIN members m ON m.space_id = s.space_id AND m.person_id = @person
                WHERE e.notebook_id = h.notebook_id AND a.received > @since AND a.author <> @person
                    AND (@person = ANY(a.mentions) OR s.author = @person OR s.person = @person)
                ORDER BY a.received DESC, a.at DESC
                LIMIT @most
                """
            )
            .With(
                ("lockedSpaces", locked.Select(one => one.Space).ToArray()),
                ("locked", locked.Select(one => one.Notebook).ToArray()),
                ("person", person),
                ("since", since),
                ("most", most)
            )
            .Rows(
                row => new ToldAnswer(
                    row.GetGuid(0),
                    row.GetGuid(1),
                    row.GetString(2),
                    row.GetGuid(3),
                    row.GetInt32(4),
                    row.GetGuid(5),
                    row.GetString(6),
                    row.GetString(7),
                    row.GetString(8),
                    row.GetGuid(9),
                    row.GetString(10),
                    row.GetString(11),
                    row.GetInt64(12),
                    row.GetString(13),
                    row.GetBoolean(14),
                    row.GetBoolean(15),
                    row.GetInt64(16)
                ),
                cancel
            );

    /// <summary>What kinds of marks of people's own are called in the libraries of one person.</summary>
    public async Task<Dictionary<(Guid Space, Guid Kind), string>> KindNames(Guid person, CancellationToken cancel)
    {
        var rows = await database
            .Command(
                "SELECT n.space_id, n.id, n.name FROM library_nodes n JOIN members m ON m.space_id = n.space_id AND m.person_id = @person WHERE n.kind = 8"
            )
            .With(("person", person))
            .Rows(row => (Space: row.GetGuid(0), Id: row.GetGuid(1), Name: row.GetString(2)), cancel);
        return rows.ToDictionary(row => (row.Space, row.Id), row => row.Name);
    }

    private Task<List<ShownSpot>> Read(
        string sql,
        CancellationToken cancel,
        IReadOnlyList<NotebookRef> locked,
        params (string, object?)[] parameters
    )
    {
        var command = database
            .Command(sql)
            .With(("lockedSpaces", locked.Select(one => one.Space).ToArray()), ("locked", locked.Select(one => one.Notebook).ToArray()));
        foreach (var (name, value) in parameters)
        {
            // A null needs its type said.
            if (name == "page")
                command.Parameters.Add(new NpgsqlParameter(name, NpgsqlTypes.NpgsqlDbType.Uuid) { Value = value ?? DBNull.Value });
            else
                command.Parameters.AddWithValue(name, value ?? DBNull.Value);
        }

        return command.Rows(Shown, cancel);
    }

    private static ShownSpot Shown(NpgsqlDataReader row) =>
        new(
            row.GetGuid(0),
            row.GetGuid(1),
            row.GetString(2),
            row.GetGuid(3),
            row.GetGuid(4),
            row.GetInt32(5),
            row.GetString(6),
            row.GetString(7),
            row.GetInt64(8),
            row.GetFieldValue<Guid[]>(9),
            row.GetGuid(10),
            (SpotKind)row.GetInt16(11),
            row.GetFieldValue<int[]>(12),
            row.GetString(13),
            row.GetString(14),
            row.GetString(15),
            row.IsDBNull(16) ? null : row.GetGuid(16),
            row.GetString(17),
            row.GetString(18),
            row.GetInt16(19),
            row.GetBoolean(20),
            row.GetInt64(21),
            row.GetGuid(22),
            row.IsDBNull(23) ? null : row.GetInt64(23),
            row.IsDBNull(24) ? null : row.GetGuid(24),
            row.GetInt32(25),
            row.GetBoolean(26)
        );
}
