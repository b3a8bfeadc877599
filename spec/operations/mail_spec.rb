# frozen_string_literal: true

require "socket"

RSpec.describe Roost::Operations::SendMail do
  let(:mail) { { recipient: "falk@heronsgate.example", subject: "Amber Roost: a new password", body: "Open this: http://roost/x?key=1\n" } }

  # A mail server that takes one mail.
  # @return [Array(Integer, Thread)] its port, and what it was told as the thread's value
  def server
    listening = TCPServer.new("127.0.0.1", 0)
    told = Thread.new do
      socket = listening.accept
      socket.puts "220 ready"
      lines = []
      while (line = socket.gets)
        lines << line
        reading = line == ".\r\n" ? false : reading || line.start_with?("DATA")
        socket.puts(line.start_with?("DATA") ? "354 go on" : "250 ok") unless reading && !line.start_with?("DATA")
        break socket.close if line.start_with?("QUIT")
      end
      lines.join
    end
    [listening.addr[1], told]
  end

  it "keeps it in the outbox, and nothing more where there is no mail server" do
    described_class.new.call(**mail)
    expect(Roost::Store::Outbox.new.latest.first).to include(mail)
    expect(database[:que_jobs].count).to eq(0)
  end

  it "leaves nothing behind where it only pretends" do
    allow(Roost.settings).to receive(:smtp_url).and_return("smtp://127.0.0.1:1")
    described_class.new.call(**mail, pretend: true)
    expect([Roost::Store::Outbox.new.latest, database[:que_jobs].count]).to eq([[], 0])
  end

  it "has it delivered in the background where there is one" do
    port, told = server
    allow(Roost.settings).to receive(:smtp_url).and_return("smtp://127.0.0.1:#{port}")
    described_class.new.call(**mail)
    job = database[:que_jobs].first
    expect(job[:job_class]).to eq("Roost::Jobs::DeliverMail")
    Roost::Jobs::DeliverMail.message(Roost::Store::Outbox.new.find(job[:args].first)).deliver!
    expect(told.value).to include("RCPT TO:<falk@heronsgate.example>", "Subject: Amber Roost: a new password", "http://roost/x?key=1")
  end
end
