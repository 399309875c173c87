using CalmQuill.Store.People;
using Microsoft.AspNetCore.Identity;

namespace CalmQuill.Server.People;

/// <summary>Has who is signed in give their password, before what a stolen sign-in must not do.</summary>
internal sealed class OwnPassword(PersonStore people, IPasswordHasher<Person> hasher, SignInLimiter limiter, Settings settings)
{
    /// <returns>Who is signed in, and what is answered where this is not their password, or it was tried too often.</returns>
    public async Task<(Person Person, IResult? Refused)> Ask(HttpContext http, string? password, CancellationToken cancel)
    {
        var person = (await people.Find(http.User.Id(), cancel))!;
        if (!await limiter.Allows($"details of {person.Id}", http, null, cancel))
            return (person, Problems.TooMany());
        return hasher.IsPassword(person, password, settings.IsDemonstration)
            ? (person, null)
            : (person, Problems.Of(StatusCodes.Status400BadRequest, "wrong-password", $"The password of your account is not right."));
    }
}
