using CalmQuill.Core.Access;
using Npgsql;

namespace CalmQuill.Store.People;

/// <summary>Accounts.</summary>
public sealed class PersonStore(Database database)
{
    /// <summary>Makes an account with its personal space. False when the e-mail address is taken.</summary>
    public async Task<bool> Register(Person person, Guid personalSpace, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var made = await connection.Execute(
            """
            INSERT INTO people (id, email, name, colour, password_hash, sign_in_key)
            VALUES (@id, @email, @name, @colour, @hash, @key)
            ON CONFLICT DO NOTHING
            """,
            cancel,
            ("id", person.Id), ("email", person.Email), ("name", person.Name), ("colour", person.Colour), ("hash", person.PasswordHash), ("key", person.SignInKey));
        if (made == 0) return false;
        await connection.Execute("INSERT INTO spaces (id, name, personal) VALUES (@id, 'My notebooks', true)", cancel, ("id", personalSpace));
        await connection.Execute(
            "INSERT INTO members (space_id, person_id, role) VALUES (@space, @person, @role)",
            cancel, ("space", personalSpace), ("person", person.Id), ("role", (short)Role.Owner));
        await transaction.CommitAsync(cancel);
        return true;
    }

    public Task<Person?> FindByEmail(string email, CancellationToken cancel) =>
        database.Command("SELECT id, email, name, colour, password_hash, sign_in_key FROM people WHERE lower(email) = lower(@email)")
            .With(("email", email)).Row(Read, cancel);

    public Task<Person?> Find(Guid id, CancellationToken cancel) =>
        database.Command("SELECT id, email, name, colour, password_hash, sign_in_key FROM people WHERE id = @id").With(("id", id)).Row(Read, cancel);

    /// <summary>Writes name, e-mail address, password and sign-in key. False when the address is another person's.</summary>
    public async Task<bool> Update(Person person, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        try
        {
            await connection.Execute(
                "UPDATE people SET email = @email, name = @name, password_hash = @hash, sign_in_key = @key WHERE id = @id",
                cancel, ("id", person.Id), ("email", person.Email), ("name", person.Name), ("hash", person.PasswordHash), ("key", person.SignInKey));
            return true;
        }
        catch (PostgresException problem) when (problem.SqlState == PostgresErrorCodes.UniqueViolation)
        {
            return false;
        }
    }

    private static Person Read(NpgsqlDataReader row) =>
        new(row.GetGuid(0), row.GetString(1), row.GetString(2), row.GetString(3), row.GetString(4), row.GetGuid(5));
}
