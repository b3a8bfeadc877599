# frozen_string_literal: true

# The baseline of answering: bare Sinatra and a Sequel insert, as one would write it first.
require "json"
require "sequel"
require "sinatra/base"

DB = Sequel.connect(ENV.fetch("BENCH_DATABASE"), max_connections: 5)
DB.extension(:pg_json)
DB.disconnect # Puma loads this before it forks

# One route, one insert.
class BareAnswers < Sinatra::Base
  set :environment, :production
  set :protection, false

  post("/*") do
    answer = JSON.parse(request.body.read)
    DB[:bare_answers].insert(slide: answer["slide"], value: Sequel.pg_jsonb(answer["fields"]), final: answer["final"])
    content_type :json
    '{"state":"final"}'
  end
end

run BareAnswers
