using CalmQuill.Store.People;
using Microsoft.AspNetCore.Identity;

namespace CalmQuill.Server.People;

/// <summary>What an account may look like, and making one.</summary>
public static class Accounts
{
    public const int LeastPassword = 8;
    private const int MostPassword = 200;
    private static readonly string[] Colours = ["plum", "sky", "lichen", "gold", "madder", "spruce"];
    private static string? hashOfNobody;

    public static string? EmailProblem(string email) =>
        email.Length is < 3 or > 254 || email.IndexOf('@') is var at && (at < 1 || at != email.LastIndexOf('@') || at == email.Length - 1) || email.Any(c => char.IsWhiteSpace(c) || char.IsControl(c))
            ? "This is not an e-mail address." : null;

    public static string? PasswordProblem(string password) => password.Length switch
    {
        < LeastPassword => $"A password needs at least {LeastPassword} characters.",
        > MostPassword => $"A password has at most {MostPassword} characters.",
        _ => null,
    };

    public static Person Make(Guid id, string email, string name, string password, IPasswordHasher<Person> hasher)
    {
        var person = new Person(id, email, name, Colours[id.ToByteArray()[15] % Colours.Length], "", Guid.NewGuid());
        return person with { PasswordHash = hasher.HashPassword(person, password) };
    }

    internal static string HashOfNobody(IPasswordHasher<Person> hasher) => hashOfNobody ??= hasher.HashPassword(null!, Guid.NewGuid().ToString());
}
