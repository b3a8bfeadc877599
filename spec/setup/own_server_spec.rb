# frozen_string_literal: true

require "socket"
require "tmpdir"

# A database server of somebody's own: what is refused before anything is lost.
RSpec.describe Roost::Setup::OwnServer do
  around { |example| Dir.mktmpdir { |folder| (@var = folder) && example.run } }

  let(:secret) { "5a" * 64 }

  def check(url = Roost.settings.database_url, **more)
    env = { "DATABASE_URL" => url, "ROOST_ENV" => "test", "ROOST_VAR" => @var, "ROOST_SESSION_SECRET" => secret }
    described_class.new(Roost::Settings.new(env.merge(more.transform_keys(&:to_s)).compact)).check
  end

  it "wants a secret that does not lie in the folder" do
    expect { check(ROOST_SESSION_SECRET: nil) }.to raise_error(described_class::Refused, /\ASet ROOST_SESSION_SECRET/)
    expect { check(ROOST_SESSION_SECRET: "short") }.to raise_error(described_class::Refused, /\ASet ROOST_SESSION_SECRET/)
  end

  it "marks the folder of its files, and takes neither another database's nor an empty one where there are files" do
    2.times { expect { check }.not_to raise_error }
    File.write(File.join(@var, "media", ".database"), "1-1\n")
    expect { check }.to raise_error(described_class::Refused, /belong to another database/)
    File.delete(File.join(@var, "media", ".database"))
    media = Roost::Store::Database.connection[:media]
    media.insert(file: "#{"a" * 64}.png", mime: "image/png", bytes: 9, width: 2, height: 2)
    expect { check }.to raise_error(described_class::Refused, /are not in #{@var}/)
    File.write(File.join(@var, "media", "#{"a" * 64}.png"), "of before folders had marks")
    2.times { expect { check }.not_to raise_error }
  ensure
    media&.where(bytes: 9)&.delete
  end

  it "refuses a pooler between it and the database" do
    url = URI(Roost.settings.database_url)
    between(url.port) do |port|
      pooled = url.dup.tap { |other| other.port = port }
      expect { check(pooled.to_s) }.to raise_error(described_class::Refused, /connection pooler/)
    end
  end

  # Passes on what comes, and tells another number for the process at the other end, as poolers do. Source: PostgreSQL's
  # protocol, BackendKeyData.
  def between(port)
    server = TCPServer.new("127.0.0.1", 0)
    thread = Thread.new do
      loop do
        client = server.accept
        real = TCPSocket.new("127.0.0.1", port)
        Thread.new { IO.copy_stream(client, real) }
        Thread.new do
          client.write(real.readpartial(65_536).b.sub(/K\0\0\0\f..../mn, "K\0\0\0\f\0\0\0\1".b)) until real.eof?
        end
      end
    end
    yield server.addr[1]
  ensure
    thread.kill
    server.close
  end
end
