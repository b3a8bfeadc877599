# frozen_string_literal: true

# The baseline of fan-out: bare Rack, streams kept in a list, the body of a POST written
# to each of them.
streams = []
headers = { "content-type" => "text/event-stream" }

run(lambda do |env|
  next [200, headers.merge("rack.hijack" => ->(io) { streams << io }), []] if env["REQUEST_METHOD"] == "GET"

  bytes = env["rack.input"].read
  streams.each { |io| io.write(bytes) }
  [204, {}, []]
end)
