using System.Security.Cryptography;
using System.Text;
using CalmQuill.Store.People;
using Microsoft.AspNetCore.DataProtection;
using OtpNet;

namespace CalmQuill.Server.People;

/// <summary>A second factor by time code (RFC 6238), and recovery codes for when it is lost. Each code is taken once.</summary>
public sealed class SecondFactor(PersonStore people, IDataProtectionProvider protection, TimeProvider clock)
{
    private const int SecretBytes = 20;
    private const int RecoveryCodes = 8;
    private const string Letters = "abcdefghjkmnpqrstuvwxyz23456789";
    private readonly IDataProtector protector = protection.CreateProtector("second-factor");

    public static string NewSecret() => Base32Encoding.ToString(RandomNumberGenerator.GetBytes(SecretBytes));

    /// <summary>The address that an authenticator takes the secret from (as common practice has it, in the key URI format).</summary>
    public static string AddressOf(string secret, string email) =>
        $"otpauth://totp/Calm%20Quill:{Uri.EscapeDataString(email)}?secret={secret}&issuer=Calm%20Quill";

    /// <summary>Whether a code fits a secret now, or half a minute before or after; the step it is of.</summary>
    public long? StepOf(string secret, string code)
    {
        byte[] bytes;
        try
        {
            bytes = Base32Encoding.ToBytes(secret);
        }
        catch (ArgumentException)
        {
            return null;
        }

        return
            code.Length == 6 && new Totp(bytes).VerifyTotp(clock.GetUtcNow().UtcDateTime, code, out var step, new VerificationWindow(1, 1))
            ? step
            : null;
    }

    /// <summary>Turns the factor on and gives the recovery codes, which are shown this once.</summary>
    public async Task<IReadOnlyList<string>> TurnOn(Guid person, string secret, CancellationToken cancel)
    {
        var codes = Enumerable
            .Range(0, RecoveryCodes)
            .Select(_ => $"{RandomNumberGenerator.GetString(Letters, 5)}-{RandomNumberGenerator.GetString(Letters, 5)}")
            .ToList();
        await people.SetSecondFactor(person, protector.Protect(Encoding.ASCII.GetBytes(secret)), [.. codes.Select(Hash)], cancel);
        return codes;
    }

    public Task TurnOff(Guid person, CancellationToken cancel) => people.SetSecondFactor(person, null, [], cancel);

    /// <summary>Takes a time code or a recovery code of a person. False when it does not fit, or was taken before.</summary>
    public async Task<bool> Take(Person person, string code, CancellationToken cancel)
    {
        if (person.SecondFactor is not { } kept)
            return true;
        var tidy = code.Trim().Replace(" ", "", StringComparison.Ordinal).ToLowerInvariant();
        if (tidy.Length > 20)
            return false;
        if (StepOf(Encoding.ASCII.GetString(protector.Unprotect(kept)), tidy) is { } step)
            return await people.TakeStep(person.Id, step, cancel);
        return await people.TakeRecoveryCode(person.Id, Hash(tidy), cancel);
    }

    private static byte[] Hash(string code) => SHA256.HashData(Encoding.UTF8.GetBytes(code));
}
