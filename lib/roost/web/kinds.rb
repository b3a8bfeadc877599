# frozen_string_literal: true

module Roost
  module Web
    # What kinds of prompt bring along for pages, each in its folder: views (*.erb), what these call (Helpers), and what an
    # answering form asks the server (Routes). Found by looking, so that nothing else knows which kinds there are.
    module Kinds
      # Routes of kinds, in an app in which a question is before somebody. The app says where they begin (FORM, with one name in
      # it) and which question is asked about (#asked).
      module Routes
        def self.extended(app) = Kinds.parts("Routes").each { |routes| app.register(routes) }

        # What an answering form asks, as JSON.
        # @param kind [String]
        # @yieldparam prompt [Core::Prompt] that is before somebody
        # @yieldparam names [Core::Session::ItemIds] what its parts are called there
        # @yieldreturn what JSON can say
        def asks(kind, name, &answer)
          get("#{self::FORM}/kinds/#{kind}/#{name}") do |id|
            prompt, names = asked(id)
            not_found unless prompt.kind == kind
            content_type :json
            JSON.generate(instance_exec(prompt, names, &answer))
          end
        end
      end

      # @param name [String] of a constant
      # @return [Array<Module>] of the kinds that have it
      def self.parts(name)
        having = Core::Kinds::NAMES.select { |kind| File.exist?(File.join(__dir__, "kinds", kind, "#{name.downcase}.rb")) }
        having.map { |kind| const_get(Core::Kinds.constant(kind), false).const_get(name, false) }
      end
    end
  end
end
