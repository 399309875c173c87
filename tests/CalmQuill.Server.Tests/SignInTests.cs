using System.Diagnostics;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using CalmQuill.Core.Access;
using CalmQuill.Core.Operations;
using CalmQuill.MailServer;
using CalmQuill.Server.People;
using CalmQuill.Store.People;
using CalmQuill.Testing;
using Microsoft.Extensions.DependencyInjection;
using OtpNet;
using Person = CalmQuill.Store.People.Person;

namespace CalmQuill.Server.Tests;

/// <summary>Getting in, and what keeps others out: letters, devices, the second factor, and guessing.</summary>
public sealed class SignInTests : IAsyncLifetime
{
    private const int SignIns = 8;
    private readonly LetterBox letters = new(0);
    private QuillHost host = null!;
    private Person person = null!;

    public async Task InitializeAsync()
    {
        host = await QuillHost.Start(with: settings =>
            settings with
            {
                Mail = new Uri($"smtp://127.0.0.1:{letters.Port}"),
                OpenRegistration = true,
                Limits = QuillHost.Roomy with { SignInsAMinute = SignIns, DevicesOfAPerson = 3 },
            }
        );
        person = await host.Person(Guid.Empty, Role.None);
    }

    public async Task DisposeAsync()
    {
        await host.DisposeAsync();
        letters.Dispose();
    }

    [Fact]
    public async Task Registering_answers_the_same_for_known_and_unknown_addresses_and_the_letter_tells()
    {
        using var caller = await Caller.SignedOut(host.Address);
        async Task<(HttpStatusCode, string)> Ask(string email)
        {
            var answer = await caller.Http.PostAsJsonAsync(
                "/api/people",
                new
                {
                    name = "Nela Quist",
                    email,
                    password = "clockwork-9",
                }
            );
            return (answer.StatusCode, await answer.Content.ReadAsStringAsync());
        }

        var unknown = await Ask("nela@test.example");
        Assert.Equal(HttpStatusCode.Accepted, unknown.Item1);
        Assert.Equal(unknown, await Ask(person.Email));
        var known = await letters.To(person.Email);
        Assert.Contains("You have one already", known.Text, StringComparison.Ordinal);
        Assert.DoesNotContain("#letter=", known.Text, StringComparison.Ordinal);
        // Nobody has the account before the letter was opened.
        Assert.Equal(
            HttpStatusCode.Unauthorized,
            (await caller.Http.PostAsJsonAsync("/api/session", new { email = "nela@test.example", password = "clockwork-9" })).StatusCode
        );
        var secret = SecretIn(await letters.To("nela@test.example"));
        Assert.Equal(
            HttpStatusCode.OK,
            (await caller.Http.PostAsJsonAsync("/api/people/confirmations", new { letter = secret })).StatusCode
        );
        Assert.Equal("Nela Quist", (await caller.Refresh()).GetProperty("person").GetProperty("name").GetString());
        using var again = await Caller.SignedOut(host.Address);
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await again.Http.PostAsJsonAsync("/api/people/confirmations", new { letter = secret })).StatusCode
        );
        using var elsewhere = await Caller.SignIn(host.Address, "nela@test.example", "clockwork-9");
    }

    [Fact]
    public async Task A_forgotten_password_is_set_anew_by_a_letter_once_and_ends_all_sign_ins()
    {
        using var before = await host.SignIn(person);
        using var caller = await Caller.SignedOut(host.Address);
        async Task<string> Forget(string email)
        {
            var answer = await caller.Http.PostAsJsonAsync("/api/people/forgotten", new { email });
            Assert.Equal(HttpStatusCode.Accepted, answer.StatusCode);
            return await answer.Content.ReadAsStringAsync();
        }

        Assert.Equal(await Forget("nobody@test.example"), await Forget(person.Email));
        var secret = SecretIn(await letters.To(person.Email));
        Assert.DoesNotContain(letters.Arrived, letter => letter.To == "nobody@test.example");
        Task<HttpResponseMessage> Set(string letter, string password) =>
            caller.Http.PostAsJsonAsync("/api/people/passwords", new { letter, password });
        Assert.Equal(HttpStatusCode.BadRequest, (await Set(secret, "short")).StatusCode);
        Assert.Equal(HttpStatusCode.BadRequest, (await Set(new string('0', 48), "another-password")).StatusCode);
        Assert.Equal(HttpStatusCode.NoContent, (await Set(secret, "another-password")).StatusCode);
        Assert.Equal(HttpStatusCode.BadRequest, (await Set(secret, "a-third-password")).StatusCode);
        Assert.False((await before.Refresh()).TryGetProperty("person", out _));
        using var anew = await Caller.SignIn(host.Address, person.Email, "another-password");
    }

    [Fact]
    public async Task Without_an_invitation_nobody_makes_an_account_unless_that_is_allowed()
    {
        await using var closed = await QuillHost.Start();
        using var caller = await Caller.SignedOut(closed.Address);
        var answer = await caller.Http.PostAsJsonAsync(
            "/api/people",
            new
            {
                name = "Nela Quist",
                email = "nela@test.example",
                password = "clockwork-9",
            }
        );
        Assert.Equal(HttpStatusCode.Forbidden, answer.StatusCode);
        Assert.Equal("invitation-needed", (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("code").GetString());
        var invented = await caller.Http.PostAsJsonAsync(
            "/api/people",
            new
            {
                name = "Nela Quist",
                email = "nela@test.example",
                password = "clockwork-9",
                invitation = "0123456789",
            }
        );
        Assert.Equal(HttpStatusCode.BadRequest, invented.StatusCode);
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await caller.Http.PostAsJsonAsync("/api/people/forgotten", new { email = person.Email })).StatusCode
        );
    }

    [Fact]
    public async Task Guessing_from_elsewhere_does_not_lock_out_a_device_that_signed_in_before()
    {
        using var own = await host.SignIn(person);
        using var attacker = await Caller.SignedOut(host.Address);
        var last = HttpStatusCode.OK;
        for (var i = 0; i <= 2 * SignIns; i++)
            last = (await attacker.Http.PostAsJsonAsync("/api/session", new { email = person.Email, password = "guess" + i })).StatusCode;
        Assert.Equal(HttpStatusCode.TooManyRequests, last);
        Assert.Equal(
            HttpStatusCode.TooManyRequests,
            (await attacker.Http.PostAsJsonAsync("/api/session", new { email = person.Email, password = QuillHost.Password })).StatusCode
        );
        (await own.Http.DeleteAsync("/api/session")).EnsureSuccessStatusCode();
        await own.Refresh();
        Assert.Equal(
            HttpStatusCode.OK,
            (await own.Http.PostAsJsonAsync("/api/session", new { email = person.Email, password = QuillHost.Password })).StatusCode
        );
        // The device has tries of its own, and no more than anybody.
        await own.Refresh();
        for (var i = 0; i <= 2 * SignIns; i++)
            last = (await own.Http.PostAsJsonAsync("/api/session", new { email = person.Email, password = "guess" + i })).StatusCode;
        Assert.Equal(HttpStatusCode.TooManyRequests, last);
    }

    [Fact]
    public async Task Known_and_unknown_addresses_take_the_same_work()
    {
        // Counted as hashes checked, not as time, which says little on a shared machine.
        var counting = new CountingHasher();
        await using var counted = await QuillHost.Start(
            with: settings => settings,
            limits: null,
            services: services => services.AddSingleton<Microsoft.AspNetCore.Identity.IPasswordHasher<Person>>(counting)
        );
        var somebody = await counted.Person(Guid.Empty, Role.None);
        using var caller = await Caller.SignedOut(counted.Address);
        foreach (var email in new[] { somebody.Email, "nobody@test.example", "no address", "" })
        {
            var before = counting.Verified;
            Assert.Equal(
                HttpStatusCode.Unauthorized,
                (await caller.Http.PostAsJsonAsync("/api/session", new { email, password = "wrong" })).StatusCode
            );
            Assert.Equal(before + 1, counting.Verified);
        }
    }

    [Fact]
    public async Task Signing_out_ends_the_cookie_for_good()
    {
        using var caller = await host.SignIn(person);
        var stolen = caller.Cookies.GetCookies(host.Address)["quill-sign-in"]!.Value;
        (await caller.Http.DeleteAsync("/api/session")).EnsureSuccessStatusCode();
        using var thief = new HttpClient(new HttpClientHandler { UseCookies = false }) { BaseAddress = host.Address };
        thief.DefaultRequestHeaders.Add("Cookie", "quill-sign-in=" + stolen);
        Assert.Equal(HttpStatusCode.Unauthorized, (await thief.GetAsync("/api/desk")).StatusCode);
    }

    [Fact]
    public async Task Devices_are_listed_and_ended_one_by_one_and_all_others()
    {
        using var first = await host.SignIn(person);
        using var second = await host.SignIn(person);
        using var third = await host.SignIn(person);
        var devices = await first.Http.GetFromJsonAsync<JsonElement>("/api/devices");
        Assert.Equal(3, devices.GetArrayLength());
        Assert.Single(devices.EnumerateArray(), device => device.GetProperty("isThis").GetBoolean());
        Assert.All(devices.EnumerateArray(), device => Assert.Equal("127.0.0.1", device.GetProperty("address").GetString()));
        var secondId = (await second.Http.GetFromJsonAsync<JsonElement>("/api/devices"))
            .EnumerateArray()
            .Single(device => device.GetProperty("isThis").GetBoolean())
            .GetProperty("id")
            .GetGuid();
        // Nobody ends another person's.
        using var other = await host.SignIn(await host.Person(Guid.Empty, Role.None));
        Assert.Equal(HttpStatusCode.NotFound, (await other.Http.DeleteAsync($"/api/devices/{secondId}")).StatusCode);
        Assert.Equal(HttpStatusCode.NoContent, (await first.Http.DeleteAsync($"/api/devices/{secondId}")).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await second.Http.GetAsync("/api/desk")).StatusCode);
        // Of more than may be, the one not used for longest ends.
        using var fourth = await host.SignIn(person);
        using var fifth = await host.SignIn(person);
        Assert.Equal(3, (await fifth.Http.GetFromJsonAsync<JsonElement>("/api/devices")).GetArrayLength());
        Assert.Equal(HttpStatusCode.NoContent, (await fifth.Http.DeleteAsync("/api/devices")).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await fourth.Http.GetAsync("/api/desk")).StatusCode);
        Assert.Equal(1, (await fifth.Http.GetFromJsonAsync<JsonElement>("/api/devices")).GetArrayLength());
    }

    [Fact]
    public async Task A_second_factor_asks_for_a_code_that_is_taken_once_and_recovery_codes_stand_in_for_it()
    {
        using var caller = await host.SignIn(person);
        var offer = await (await caller.Http.PostAsync("/api/people/me/second-factor", null)).Content.ReadFromJsonAsync<JsonElement>();
        var secret = offer.GetProperty("secret").GetString()!;
        Assert.Contains($"secret={secret}", offer.GetProperty("address").GetString(), StringComparison.Ordinal);
        // Otp.NET is the reference for RFC 6238 on the authenticator's side, too.
        var totp = new Totp(Base32Encoding.ToBytes(secret));
        Task<HttpResponseMessage> TurnOn(string code, string password) =>
            caller.Http.PutAsJsonAsync(
                "/api/people/me/second-factor",
                new
                {
                    secret,
                    code,
                    password,
                }
            );
        Assert.Equal(HttpStatusCode.BadRequest, (await TurnOn("000000", QuillHost.Password)).StatusCode);
        Assert.Equal(HttpStatusCode.BadRequest, (await TurnOn(totp.ComputeTotp(), "wrong")).StatusCode);
        var on = await TurnOn(totp.ComputeTotp(), QuillHost.Password);
        Assert.Equal(HttpStatusCode.OK, on.StatusCode);
        var recovery = (await on.Content.ReadFromJsonAsync<JsonElement>())
            .GetProperty("recoveryCodes")
            .EnumerateArray()
            .Select(code => code.GetString()!)
            .ToList();
        Assert.Equal(8, recovery.Distinct().Count());

        using var elsewhere = await Caller.SignedOut(host.Address);
        async Task<(HttpStatusCode, string?)> Enter(string? code)
        {
            var answer = await elsewhere.Http.PostAsJsonAsync(
                "/api/session",
                new
                {
                    email = person.Email,
                    password = QuillHost.Password,
                    code,
                }
            );
            var body = await answer.Content.ReadFromJsonAsync<JsonElement>();
            await elsewhere.Refresh();
            return (answer.StatusCode, body.TryGetProperty("code", out var why) ? why.GetString() : null);
        }

        Assert.Equal((HttpStatusCode.Unauthorized, "code-needed"), await Enter(null));
        Assert.Equal((HttpStatusCode.Unauthorized, "wrong-code"), await Enter("123"));
        var good = totp.ComputeTotp();
        Assert.Equal((HttpStatusCode.OK, null), await Enter(good));
        Assert.Equal((HttpStatusCode.Unauthorized, "wrong-code"), await Enter(good));
        Assert.Equal((HttpStatusCode.OK, null), await Enter(recovery[0].ToUpperInvariant()));
        Assert.Equal((HttpStatusCode.Unauthorized, "wrong-code"), await Enter(recovery[0]));
        // The secret is nowhere in the database as it is.
        var kept = (await host.Services.GetRequiredService<PersonStore>().Find(person.Id, default))!.SecondFactor!;
        Assert.DoesNotContain(secret, System.Text.Encoding.Latin1.GetString(kept), StringComparison.Ordinal);
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await caller.Http.PostAsJsonAsync("/api/people/me/second-factor/off", new { password = QuillHost.Password })).StatusCode
        );
    }

    [Fact]
    public async Task Passwords_that_stand_in_the_documentation_open_the_demonstration_alone()
    {
        foreach (var demonstration in new[] { false, true })
        {
            await using var own = await QuillHost.Start(with: settings => settings with { IsDemonstration = demonstration });
            var ines = Accounts.Make(
                Guid.NewGuid(),
                "ines@lantern.example",
                "Ines Valder",
                "lantern-street",
                own.Services.GetRequiredService<Microsoft.AspNetCore.Identity.IPasswordHasher<Person>>()
            );
            await own.Services.GetRequiredService<PersonStore>().Register(ines, Guid.NewGuid(), default);
            using var caller = await Caller.SignedOut(own.Address);
            var answer = await caller.Http.PostAsJsonAsync("/api/session", new { email = ines.Email, password = "lantern-street" });
            Assert.Equal(demonstration ? HttpStatusCode.OK : HttpStatusCode.Unauthorized, answer.StatusCode);
        }

        using var signedIn = await host.SignIn(person);
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (
                await signedIn.Http.PutAsJsonAsync(
                    "/api/people/me/password",
                    new Dictionary<string, string> { ["old"] = QuillHost.Password, ["new"] = "lantern-street" }
                )
            ).StatusCode
        );
    }

    [Fact]
    public async Task Only_a_proxy_that_is_named_is_believed_and_tls_is_kept_to()
    {
        async Task<(string? Hsts, bool Secure, string Address)> Ask(string proxies)
        {
            await using var behind = await QuillHost.Start(with: settings =>
                settings with
                {
                    Proxies = proxies,
                    PublicUrl = new Uri("https://notes.example/"),
                }
            );
            var somebody = await behind.Person(Guid.Empty, Role.None);
            using var http = new HttpClient(new HttpClientHandler { UseCookies = false }) { BaseAddress = behind.Address };
            http.DefaultRequestHeaders.Add("X-Forwarded-For", "203.0.113.7");
            http.DefaultRequestHeaders.Add("X-Forwarded-Proto", "https");
            var door = await http.GetAsync("/api/session");
            http.DefaultRequestHeaders.Add(
                "X-Quill-Antiforgery",
                (await door.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("antiforgery").GetString()
            );
            http.DefaultRequestHeaders.Add("Cookie", Cookies(door));
            var entered = await http.PostAsJsonAsync("/api/session", new { email = somebody.Email, password = QuillHost.Password });
            entered.EnsureSuccessStatusCode();
            http.DefaultRequestHeaders.Remove("Cookie");
            http.DefaultRequestHeaders.Add("Cookie", Cookies(entered));
            var devices = await http.GetFromJsonAsync<JsonElement>("/api/devices");
            return (
                entered.Headers.TryGetValues("Strict-Transport-Security", out var hsts) ? hsts.Single() : null,
                entered.Headers.GetValues("Set-Cookie").All(cookie => cookie.Contains("secure", StringComparison.OrdinalIgnoreCase)),
                devices[0].GetProperty("address").GetString()!
            );
        }

        Assert.Equal(("max-age=31536000", true, "203.0.113.7"), await Ask("127.0.0.1"));
        Assert.Equal("127.0.0.1", (await Ask("")).Address);
        Assert.Equal("127.0.0.1", (await Ask("10.0.0.1")).Address);
    }

    [Fact]
    public async Task A_new_server_prints_the_link_by_which_the_first_person_makes_an_account_and_then_invites()
    {
        await using var fresh = await QuillHost.Start();
        var printed = new StringWriter();
        var output = Console.Out;
        Console.SetOut(printed);
        try
        {
            await Letters.OfTheFirst(fresh.Services.GetRequiredService<Settings>());
        }
        finally
        {
            Console.SetOut(output);
        }

        var invitation = new string([.. printed.ToString().Split("#invitation=")[1].TakeWhile(char.IsAsciiLetterOrDigit)]);
        using var first = await Caller.SignedOut(fresh.Address);
        var made = await first.Http.PostAsJsonAsync(
            "/api/people",
            new
            {
                name = "Nela Quist",
                email = "nela@test.example",
                password = "clockwork-9",
                invitation,
            }
        );
        Assert.Equal(HttpStatusCode.OK, made.StatusCode);
        await first.Refresh();
        for (var i = 0; i < 50; i++)
            Assert.Equal(HttpStatusCode.OK, (await first.Http.PostAsync("/api/invitations", null)).StatusCode);
        Assert.Equal(HttpStatusCode.Conflict, (await first.Http.PostAsync("/api/invitations", null)).StatusCode);
    }

    [Fact]
    public async Task The_password_command_prints_an_address_that_sets_a_new_one()
    {
        var printed = new StringWriter();
        var (output, before) = (Console.Out, host.Services.GetRequiredService<Settings>());
        Console.SetOut(printed);
        int code,
            unknown;
        try
        {
            code = await Letters.OfPassword(before, person.Email);
            unknown = await Letters.OfPassword(before, "nobody@test.example");
        }
        finally
        {
            Console.SetOut(output);
        }

        Assert.Equal((0, 1), (code, unknown));
        var secret = printed.ToString().Split("#letter=")[1].Trim();
        using var caller = await Caller.SignedOut(host.Address);
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await caller.Http.PostAsJsonAsync("/api/people/passwords", new { letter = secret, password = "another-password" })).StatusCode
        );
        using var anew = await Caller.SignIn(host.Address, person.Email, "another-password");
    }

    private static string Cookies(HttpResponseMessage answer) =>
        string.Join("; ", answer.Headers.GetValues("Set-Cookie").Select(cookie => cookie.Split(';')[0]));

    private static string SecretIn(ArrivedLetter letter) => new([.. letter.Text.Split("#letter=")[1].TakeWhile(char.IsAsciiLetterOrDigit)]);

    private sealed class CountingHasher : Microsoft.AspNetCore.Identity.PasswordHasher<Person>
    {
        public int Verified { get; private set; }

        public override Microsoft.AspNetCore.Identity.PasswordVerificationResult VerifyHashedPassword(
            Person user,
            string hashedPassword,
            string providedPassword
        )
        {
            Verified++;
            return base.VerifyHashedPassword(user, hashedPassword, providedPassword);
        }
    }
}
