# frozen_string_literal: true

module Roost
  module Operations
    # Tells the sessions that run for a class that its list has changed.
    module TellRunning
      def self.of_class(class_id)
        Store::Sessions.new.running_for(class_id).each { |id| Live::Bus.announce(id, :people) }
      end
    end
  end
end
