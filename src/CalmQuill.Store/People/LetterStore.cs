using Npgsql;

namespace CalmQuill.Store.People;

/// <summary>What a letter of admission is for.</summary>
public enum LetterPurpose : short
{
    /// <summary>Making an account.</summary>
    Invitation = 1,

    /// <summary>Finishing a registration.</summary>
    Registration = 2,

    /// <summary>Setting a new password.</summary>
    Password = 3,
}

/// <summary>A letter of admission, good for one use until its time is over.</summary>
/// <param name="Purpose">What it is for.</param>
/// <param name="MadeBy">Who invited; null for the server itself.</param>
/// <param name="Person">Whose password it is for.</param>
/// <param name="Email">Of a registration that waits.</param>
/// <param name="Name">Of a registration that waits.</param>
/// <param name="PasswordHash">Of a registration that waits.</param>
public sealed record Letter(
    LetterPurpose Purpose,
    Guid? MadeBy,
    Guid? Person,
    string Email = "",
    string Name = "",
    string PasswordHash = ""
);

/// <summary>Letters of admission. Their secrets are not kept, only hashes of them: who reads the database learns none.</summary>
public sealed class LetterStore(Database database)
{
    private const int SecretBytes = 24;

    /// <summary>Writes a letter and gives its secret, fit for an address.</summary>
    public async Task<string> Write(Letter letter, TimeSpan lasts, CancellationToken cancel)
    {
        var secret = Secrets.Draw(SecretBytes);
        await using var connection = await database.Connect(cancel);
        await using var command = new NpgsqlCommand(
            """
            INSERT INTO letters (hash, purpose, made_by, person_id, email, name, password_hash, until)
            VALUES (@hash, @purpose, @by, @person, @email, @name, @password, @until)
            """,
            connection
        ).With(
            ("hash", Secrets.Hash(secret)),
            ("purpose", (short)letter.Purpose),
            ("email", letter.Email),
            ("name", letter.Name),
            ("password", letter.PasswordHash),
            ("until", DateTime.UtcNow + lasts)
        );
        command.Parameters.Add(new NpgsqlParameter("by", NpgsqlTypes.NpgsqlDbType.Uuid) { Value = (object?)letter.MadeBy ?? DBNull.Value });
        command.Parameters.Add(
            new NpgsqlParameter("person", NpgsqlTypes.NpgsqlDbType.Uuid) { Value = (object?)letter.Person ?? DBNull.Value }
        );
        await command.ExecuteNonQueryAsync(cancel);
        await connection.Execute("DELETE FROM letters WHERE until <= now()", cancel);
        return secret;
    }

    /// <summary>Whether a letter is good still.</summary>
    public Task<bool> IsGood(string secret, LetterPurpose purpose, CancellationToken cancel) =>
        database
            .Command("SELECT EXISTS (SELECT 1 FROM letters WHERE hash = @hash AND purpose = @purpose AND until > now())")
            .With(("hash", Secrets.Hash(secret)), ("purpose", (short)purpose))
            .Row(row => row.GetBoolean(0), cancel);

    /// <summary>Takes a letter, once; null when it is none, was taken, or its time is over.</summary>
    public Task<Letter?> Take(string secret, LetterPurpose purpose, CancellationToken cancel) =>
        database
            .Command(
                "DELETE FROM letters WHERE hash = @hash AND purpose = @purpose AND until > now() RETURNING purpose, made_by, person_id, email, name, password_hash"
            )
            .With(("hash", Secrets.Hash(secret)), ("purpose", (short)purpose))
            .Row(
                row => new Letter(
                    (LetterPurpose)row.GetInt16(0),
                    row.IsDBNull(1) ? null : row.GetGuid(1),
                    row.IsDBNull(2) ? null : row.GetGuid(2),
                    row.GetString(3),
                    row.GetString(4),
                    row.GetString(5)
                ),
                cancel
            );

    /// <summary>How many invitations of a person wait to be used.</summary>
    public Task<long> Waiting(Guid madeBy, CancellationToken cancel) =>
        database
            .Command("SELECT count(*) FROM letters WHERE made_by = @by AND purpose = 1 AND until > now()")
            .With(("by", madeBy))
            .Row(row => row.GetInt64(0), cancel);
}
