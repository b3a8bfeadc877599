# frozen_string_literal: true

# Whoever changes the database: every INSERT, UPDATE and DELETE that is asked for while specs run, prepared or
# not, is traced to the first file of the program outside store/, which may not be one of web/, nor of live/ but two. What the
# libraries do for themselves (Rodauth, the limits of Rack::Attack) is theirs.
module Changes
  WRITES = /\A\s*(?:INSERT|UPDATE|DELETE|WITH\b.*?\b(?:INSERT\s+INTO|DELETE\s+FROM|UPDATE\s+\w+\s+SET))\b/im
  OURS = %r{/lib/roost/(?!store/)([\w/]+\.rb|web/views/[\w/-]+\.erb)}

  # What live may change itself: who is here and how good their lines are, and what was sent to whom; and a lesson that nobody
  # sees, of which nothing stays.
  ALLOWED = %w[live/engine.rb live/audiences/seats.rb web/warm_up.rb].freeze

  # @return [Array<String>] files of the web layer, and of live but those, that changed something
  FROM_WEB = [] # rubocop:disable Style/MutableConstant

  def log_connection_yield(sql, *)
    prepared = sql[/\AEXECUTE (\w+)/, 1]
    Changes.note(caller_locations) if (prepared ? prepared_statement(prepared.to_sym).prepared_sql : sql).match?(WRITES)
    super
  end

  def self.note(places)
    file = places.lazy.filter_map { |place| place.path[OURS, 1] }.first
    FROM_WEB << file if file&.start_with?("web/", "live/") && !ALLOWED.include?(file) && places.none? do |place|
      place.path.match?(%r{/gems/(?:rodauth|rack-attack)-})
    end
  end
end
