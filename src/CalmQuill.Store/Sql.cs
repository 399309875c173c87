using Npgsql;
using NpgsqlTypes;

namespace CalmQuill.Store;

/// <summary>Plain ADO.NET with named parameters, said in one line.</summary>
internal static class Sql
{
    public static NpgsqlCommand With(this NpgsqlCommand command, params ReadOnlySpan<(string Name, object? Value)> parameters)
    {
        foreach (var (name, value) in parameters)
            command.Parameters.AddWithValue(name, value ?? DBNull.Value);
        return command;
    }

    /// <summary>Names a document, as <c>@space</c>, <c>@kind</c> and <c>@id</c>.</summary>
    public static NpgsqlCommand Of(this NpgsqlCommand command, Documents.DocumentRef document) =>
        command.With(("space", document.Space), ("kind", (short)document.Kind), ("id", document.Id));

    /// <summary>For what may take long and waits for nobody: no limits on this connection until it is given back.</summary>
    public static Task Patiently(this NpgsqlConnection connection, CancellationToken cancel) =>
        connection.Execute("SET statement_timeout = 0; SET lock_timeout = 0", cancel);

    public static async Task<int> Execute(
        this NpgsqlConnection connection,
        string sql,
        CancellationToken cancel,
        params (string Name, object? Value)[] parameters
    )
    {
        await using var command = new NpgsqlCommand(sql, connection).With(parameters);
        return await command.ExecuteNonQueryAsync(cancel);
    }

    /// <summary>All rows of a query, each made by <paramref name="read"/>.</summary>
    public static async Task<List<T>> Rows<T>(this NpgsqlCommand command, Func<NpgsqlDataReader, T> read, CancellationToken cancel)
    {
        await using (command)
        {
            var rows = new List<T>();
            await using var reader = await command.ExecuteReaderAsync(cancel);
            while (await reader.ReadAsync(cancel))
                rows.Add(read(reader));
            return rows;
        }
    }

    /// <summary>Writes a value of a copied row, or its absence.</summary>
    public static Task WriteNullable<T>(this NpgsqlBinaryImporter copy, T? value, NpgsqlDbType type, CancellationToken cancel)
        where T : struct => value is { } known ? copy.WriteAsync(known, type, cancel) : copy.WriteNullAsync(cancel);

    /// <summary>The only row of a query; the default when there is none.</summary>
    public static async Task<T?> Row<T>(this NpgsqlCommand command, Func<NpgsqlDataReader, T> read, CancellationToken cancel)
    {
        await using (command)
        {
            await using var reader = await command.ExecuteReaderAsync(cancel);
            return await reader.ReadAsync(cancel) ? read(reader) : default;
        }
    }
}
