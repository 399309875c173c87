using Npgsql;
using NpgsqlTypes;

namespace CalmQuill.Store.Mail;

/// <summary>A letter that is due, enciphered, since it may hold a secret that lets somebody in.</summary>
/// <param name="Id">What it is told about by.</param>
/// <param name="Content">The enciphered letter.</param>
/// <param name="Tries">How often it could not be sent.</param>
public sealed record DueMail(long Id, byte[] Content, int Tries);

/// <summary>Letters that wait to be sent, over all servers, so that none is lost while the mail server, or one of ours, is away.</summary>
public sealed class MailStore(Database database)
{
    /// <param name="content">The enciphered letter.</param>
    /// <param name="invitation">The invitation it carries, whose owners see how it goes; null for others.</param>
    /// <param name="now">UTC.</param>
    /// <param name="cancel">Gives up.</param>
    public async Task Write(byte[] content, Guid? invitation, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var command = new NpgsqlCommand(
            "INSERT INTO mails (content, invitation_id, next_try) VALUES (@content, @invitation, @now)",
            connection
        ).With(("content", content), ("now", now.UtcDateTime));
        command.Parameters.Add(new NpgsqlParameter("invitation", NpgsqlDbType.Uuid) { Value = (object?)invitation ?? DBNull.Value });
        await command.ExecuteNonQueryAsync(cancel);
    }

    /// <summary>Takes letters that are due. No other server takes them before <paramref name="until"/>; who took them says by then what came of it.</summary>
    public async Task<List<DueMail>> Take(int most, DateTimeOffset now, DateTimeOffset until, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        return await new NpgsqlCommand(
            """
            UPDATE mails SET next_try = @until
            WHERE id IN (
                SELECT id FROM mails WHERE next_try <= @now AND NOT given_up ORDER BY next_try, id LIMIT @most FOR UPDATE SKIP LOCKED
            )
            RETURNING id, content, tries
            """,
            connection
        ).With(("most", most), ("now", now.UtcDateTime), ("until", until.UtcDateTime)).Rows(row => new DueMail(row.GetInt64(0), row.GetFieldValue<byte[]>(1), row.GetInt32(2)), cancel);
    }

    /// <summary>It was sent, and is forgotten.</summary>
    public Task Sent(long mail, CancellationToken cancel) => Execute("DELETE FROM mails WHERE id = @mail", cancel, ("mail", mail));

    /// <summary>It could not be sent, and is due again at a time.</summary>
    public Task Again(long mail, DateTimeOffset at, CancellationToken cancel) =>
        Execute("UPDATE mails SET tries = tries + 1, next_try = @at WHERE id = @mail", cancel, ("mail", mail), ("at", at.UtcDateTime));

    /// <summary>It is not tried again. What it carried is forgotten; that it failed stays as long as its invitation.</summary>
    public async Task GiveUp(long mail, CancellationToken cancel)
    {
        await Execute("DELETE FROM mails WHERE id = @mail AND invitation_id IS NULL", cancel, ("mail", mail));
        await Execute("UPDATE mails SET given_up = true, content = '' WHERE id = @mail", cancel, ("mail", mail));
    }

    private async Task Execute(string sql, CancellationToken cancel, params (string, object?)[] parameters)
    {
        await using var connection = await database.Connect(cancel);
        await connection.Execute(sql, cancel, parameters);
    }
}
