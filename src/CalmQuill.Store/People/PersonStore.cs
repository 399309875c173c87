using CalmQuill.Core.Access;
using CalmQuill.Store.Rights;
using Npgsql;

namespace CalmQuill.Store.People;

/// <summary>Accounts.</summary>
public sealed class PersonStore(Database database)
{
    internal const string Columns = "p.id, p.email, p.name, p.colour, p.password_hash, p.second_factor";

    /// <summary>Makes an account with its personal space. False when the e-mail address is taken.</summary>
    public async Task<bool> Register(Person person, Guid personalSpace, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        if (!await Register(connection, person, personalSpace, cancel))
            return false;
        await transaction.CommitAsync(cancel);
        return true;
    }

    /// <summary>The same within a transaction of the caller's.</summary>
    internal static async Task<bool> Register(NpgsqlConnection connection, Person person, Guid personalSpace, CancellationToken cancel)
    {
        var made = await connection.Execute(
            "INSERT INTO people (id, email, name, colour, password_hash) VALUES (@id, @email, @name, @colour, @hash) ON CONFLICT DO NOTHING",
            cancel,
            ("id", person.Id),
            ("email", person.Email),
            ("name", person.Name),
            ("colour", person.Colour),
            ("hash", person.PasswordHash)
        );
        if (made == 0)
            return false;
        await connection.Execute(
            "INSERT INTO spaces (id, name, personal) VALUES (@id, 'My notebooks', true)",
            cancel,
            ("id", personalSpace)
        );
        await connection.Execute(
            "INSERT INTO members (space_id, person_id, role) VALUES (@space, @person, @role)",
            cancel,
            ("space", personalSpace),
            ("person", person.Id),
            ("role", (short)Role.Owner)
        );
        return true;
    }

    public Task<bool> Any(CancellationToken cancel) =>
        database.Command("SELECT EXISTS (SELECT 1 FROM people)").Row(row => row.GetBoolean(0), cancel);

    public Task<Person?> FindByEmail(string email, CancellationToken cancel) =>
        database.Command($"SELECT {Columns} FROM people p WHERE lower(p.email) = lower(@email)").With(("email", email)).Row(Read, cancel);

    /// <summary>
    /// Those whose whole name this is, in any case: two at most, which is one too many to know who is meant. Nobody whose account is deleted.
    /// </summary>
    public Task<List<Person>> FindByName(string name, CancellationToken cancel) =>
        database
            .Command(
                $"SELECT {Columns} FROM people p WHERE lower(p.name) = lower(@name) AND p.leaving_at IS NULL AND p.password_hash <> '' LIMIT 2"
            )
            .With(("name", name))
            .Rows(Read, cancel);

    public Task<Person?> Find(Guid id, CancellationToken cancel) =>
        database.Command($"SELECT {Columns} FROM people p WHERE p.id = @person").With(("person", id)).Row(Read, cancel);

    /// <summary>Writes name, e-mail address and colour. False when the address is another person's.</summary>
    public async Task<bool> Update(Guid person, string name, string email, string colour, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        try
        {
            await connection.Execute(
                "UPDATE people SET email = @email, name = @name, colour = @colour WHERE id = @person",
                cancel,
                ("person", person),
                ("email", email),
                ("name", name),
                ("colour", colour)
            );
            return true;
        }
        catch (PostgresException problem) when (problem.SqlState == PostgresErrorCodes.UniqueViolation)
        {
            return false;
        }
    }

    /// <summary>Sets a new password, and ends all sign-ins but one.</summary>
    /// <param name="person">Whose.</param>
    /// <param name="hash">The new password's hash.</param>
    /// <param name="but">The sign-in that stays; the empty id for none.</param>
    /// <param name="cancel">Gives up.</param>
    public async Task SetPassword(Guid person, string hash, Guid but, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.Execute("UPDATE people SET password_hash = @hash WHERE id = @person", cancel, ("person", person), ("hash", hash));
        await SessionStore.EndAll(connection, person, but, cancel);
        await transaction.CommitAsync(cancel);
    }

    /// <summary>Sets or takes away the second factor, with the codes that stand in for it when it is lost.</summary>
    public async Task SetSecondFactor(Guid person, byte[]? secret, IReadOnlyList<byte[]> recoveryHashes, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.Execute(
            "UPDATE people SET second_factor = @secret, second_factor_step = 0 WHERE id = @person",
            cancel,
            ("person", person),
            ("secret", secret)
        );
        await connection.Execute("DELETE FROM recovery_codes WHERE person_id = @person", cancel, ("person", person));
        await connection.Execute(
            "INSERT INTO recovery_codes (person_id, hash) SELECT @person, unnest(@hashes)",
            cancel,
            ("person", person),
            ("hashes", recoveryHashes.ToArray())
        );
        await transaction.CommitAsync(cancel);
    }

    /// <summary>Takes the code of a step once: false when that step's, or a later one's, was taken before.</summary>
    public async Task<bool> TakeStep(Guid person, long step, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        return await connection.Execute(
                "UPDATE people SET second_factor_step = @step WHERE id = @person AND second_factor_step < @step",
                cancel,
                ("person", person),
                ("step", step)
            ) == 1;
    }

    /// <summary>Takes a recovery code once.</summary>
    public async Task<bool> TakeRecoveryCode(Guid person, byte[] hash, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        return await connection.Execute(
                "DELETE FROM recovery_codes WHERE person_id = @person AND hash = @hash",
                cancel,
                ("person", person),
                ("hash", hash)
            ) == 1;
    }

    internal static Person Read(NpgsqlDataReader row) =>
        new(row.GetGuid(0), row.GetString(1), row.GetString(2), row.GetString(3), row.GetString(4))
        {
            SecondFactor = row.IsDBNull(5) ? null : row.GetFieldValue<byte[]>(5),
        };
}
