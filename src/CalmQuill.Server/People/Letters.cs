using CalmQuill.Store;
using CalmQuill.Store.People;

namespace CalmQuill.Server.People;

/// <summary>Addresses that the person who looks after the server gives out by hand.</summary>
public static class Letters
{
    /// <summary>Prints where the first person makes an account, who then invites the others.</summary>
    public static async Task OfTheFirst(Settings settings)
    {
        await using var database = new Database(settings.Database);
        var secret = await new LetterStore(database).Write(new Letter(LetterPurpose.Invitation, null, null), TimeSpan.FromDays(1), default);
        Console.WriteLine();
        Console.WriteLine("  Nobody has an account here yet. The first one is made, within a day, at");
        Console.WriteLine("  " + Address(settings) + PeopleEndpoints.InvitationPath(secret));
        Console.WriteLine();
    }

    /// <summary>Prints where a person sets a new password.</summary>
    /// <returns>The exit code: 1 when nobody has this address.</returns>
    public static async Task<int> OfPassword(Settings settings, string email)
    {
        await using var database = new Database(settings.Database);
        if (await new PersonStore(database).FindByEmail(email, default) is not { } person)
        {
            Console.Error.WriteLine("Nobody has an account with this address.");
            return 1;
        }

        var secret = await new LetterStore(database).Write(
            new Letter(LetterPurpose.Password, null, person.Id),
            TimeSpan.FromHours(2),
            default
        );
        Console.WriteLine($"{person.Name} sets a new password, within two hours, at");
        Console.WriteLine(Address(settings) + PeopleEndpoints.PasswordPath(secret));
        return 0;
    }

    /// <summary>Where the application is opened, for whoever reads it elsewhere.</summary>
    public static string Address(Settings settings) => (settings.PublicUrl?.ToString() ?? settings.Address).TrimEnd('/');
}
