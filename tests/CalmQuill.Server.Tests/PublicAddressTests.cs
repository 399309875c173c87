using System.Net;
using CalmQuill.Server.Outside;

namespace CalmQuill.Server.Tests;

/// <summary>Where the server fetches for people, and where it never does.</summary>
public sealed class PublicAddressTests
{
    [Theory]
    [InlineData("93.184.215.14", true)]
    [InlineData("2606:2800:21f:cb07:6820:80da:af6b:8b2c", true)]
    [InlineData("127.0.0.1", false)]
    [InlineData("10.1.2.3", false)]
    [InlineData("100.64.0.1", false)]
    [InlineData("169.254.169.254", false)]
    [InlineData("192.0.2.1", false)]
    [InlineData("198.51.100.7", false)]
    [InlineData("203.0.113.7", false)]
    [InlineData("255.255.255.255", false)]
    [InlineData("::1", false)]
    [InlineData("::", false)]
    [InlineData("::ffff:10.0.0.1", false)]
    [InlineData("::10.0.0.1", false)]
    [InlineData("64:ff9b::a00:1", false)]
    [InlineData("64:ff9b:1::a00:1", false)]
    [InlineData("2002:7f00:1::1", false)]
    [InlineData("2001:0:4136:e378::1", false)]
    [InlineData("2001:db8::1", false)]
    [InlineData("fe80::1", false)]
    [InlineData("fec0::1", false)]
    [InlineData("fc00::1", false)]
    [InlineData("ff02::1", false)]
    [InlineData("100::1", false)]
    public void Addresses_inside_are_known_in_every_form(string address, bool isPublic) =>
        // IANA's registries of special-purpose addresses (RFC 6890), with the forms that carry one of version 4 (RFC 4291, 6052, 3056, 4380).
        Assert.Equal(isPublic, PublicAddresses.IsPublic(IPAddress.Parse(address)));
}
