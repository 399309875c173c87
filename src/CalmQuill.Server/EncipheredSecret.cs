using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.DataProtection;

namespace CalmQuill.Server;

/// <summary>The secret of a link as it is kept so that the link can be shown again.</summary>
internal static class EncipheredSecret
{
    public static byte[] Encipher(this IDataProtector cipher, string secret) => cipher.Protect(Encoding.ASCII.GetBytes(secret));

    /// <summary>Empty when the keys are not those it was enciphered with, as after moving without them; the link itself goes on being good.</summary>
    public static string Open(this IDataProtector cipher, byte[] secret)
    {
        try
        {
            return Encoding.ASCII.GetString(cipher.Unprotect(secret));
        }
        catch (CryptographicException)
        {
            return "";
        }
    }
}
